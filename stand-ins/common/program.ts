/** What all stand-ins share: settings from the environment, log lines, a small HTTP server. */
import { randomUUID } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import pino from 'pino'

export function setting(name: string): string {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set`)
  return value
}

export const logOf = (program: string) => pino({ base: { program }, timestamp: pino.stdTimeFunctions.isoTime })

export type Handler = (request: IncomingMessage & { id: string }, response: ServerResponse, url: URL) => Promise<void> | void

/** Listens on loopback; every request has an id and, when it ends, a log line. `/health` answers by itself. */
export function serve(program: string, port: number, handler: Handler): Server {
  const log = logOf(program)
  const server = createServer((request, response) => {
    const given = request.headers['x-request-id']
    const id = typeof given === 'string' && given.length <= 80 ? given : randomUUID()
    const url = new URL(request.url ?? '/', 'http://localhost')
    if (url.pathname === '/health') return void response.writeHead(200).end('ok')
    response.once('close', () => log.info({ requestId: id, method: request.method, path: url.pathname, status: response.statusCode }, 'request'))
    Promise.resolve(handler(Object.assign(request, { id }), response, url)).catch((error: unknown) => {
      log.error({ err: error, requestId: id }, 'a request failed')
      if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain; charset=utf-8' })
      response.end('Something went wrong here.')
    })
  })
  server.listen(port, '127.0.0.1', () => log.info({ port }, 'listens'))
  process.once('SIGTERM', () => {
    server.closeAllConnections()
    server.close(() => process.exit(0))
  })
  return server
}

/** The whole body as text, at most 1 MB. */
export async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = ''
  for await (const piece of request.setEncoding('utf8')) {
    text += piece as string
    if (text.length > 1e6) throw new Error('body too large')
  }
  return text
}

export function json(response: ServerResponse, status: number, data: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(data))
}
