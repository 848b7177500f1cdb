/** TCP ports on loopback. */
import { createServer } from 'node:net'
import { Stop } from './say.mjs'

const listens = (port) => new Promise((done) => {
  const server = createServer()
  server.once('error', () => done(null))
  server.listen({ host: '127.0.0.1', port, exclusive: true }, () => {
    const got = server.address().port
    server.close(() => done(got))
  })
})

const given = new Set()

/**
 * A port nobody listens on, never the same one twice. It lies below the range from which the system
 * takes ports for connections, so that none of them takes it before it is used.
 */
export async function freePort() {
  for (;;) {
    const port = 20_000 + Math.floor(Math.random() * 10_000)
    if (given.has(port) || await listens(port) === null) continue
    given.add(port)
    return port
  }
}

/**
 * Fails with one clear sentence when a port is taken.
 * @param {number} port
 * @param {string} what the program that wants it
 * @param {string} setting the environment variable that moves it
 */
export async function mustBeFree(port, what, setting) {
  if (await listens(port) === null) {
    throw new Stop(`port ${port}, where ${what} should answer, is taken by another program; end that program or choose another port with ${setting}=${port + 10} npm start.`)
  }
}
