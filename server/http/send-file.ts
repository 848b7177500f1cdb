/**
 * Sends a file, or the range of it that was asked for (RFC 9110, 14). One range at a time; several
 * are answered with the whole file, as the standard allows.
 */
import { getHeader, setResponseHeaders, setResponseStatus, type EventHandlerRequest, type H3Event } from 'h3'
import { nothingHere } from '../services/errors'
import { release, take, type OpenFile } from './open-files'
import { pour } from './pour'

const TYPES: Record<string, string> = { m3u8: 'application/vnd.apple.mpegurl', m4s: 'video/mp4', jpg: 'image/jpeg', json: 'application/json' }

export interface ByteRange { start: number, end: number }

/** The range of a `Range` header, both ends included; 'whole' without a usable one, 'outside' beyond the file. */
export function rangeOf(header: string | undefined, size: number): ByteRange | 'whole' | 'outside' {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header?.trim() ?? '')
  if (!match || (!match[1] && !match[2])) return 'whole'
  if (!match[1]) {
    const last = Math.min(size, Number(match[2]))
    return last > 0 ? { start: size - last, end: size - 1 } : 'outside'
  }
  const start = Number(match[1])
  const end = match[2] ? Math.min(size - 1, Number(match[2])) : size - 1
  if (match[2] && Number(match[2]) < start) return 'whole'
  return start < size ? { start, end } : 'outside'
}

/** @throws Refusal 404 when the file is not there */
export async function sendFile(event: H3Event<EventHandlerRequest>, path: string, cache: string): Promise<void> {
  const file = await take(path).catch(() => {
    throw nothingHere()
  })
  try {
    if (!file.isFile) throw nothingHere()
    await sendOpen(event, file, path.slice(path.lastIndexOf('.') + 1), cache)
  } finally {
    release(path)
  }
}

async function sendOpen(event: H3Event<EventHandlerRequest>, info: OpenFile, ending: string, cache: string): Promise<void> {
  const etag = `"${info.size.toString(36)}-${Math.trunc(info.modified.getTime()).toString(36)}"`
  setResponseHeaders(event, {
    'content-type': TYPES[ending] ?? 'application/octet-stream',
    'accept-ranges': 'bytes', 'cache-control': cache, 'etag': etag, 'last-modified': info.modified.toUTCString(), 'x-content-type-options': 'nosniff',
  })
  const { res } = event.node
  if (getHeader(event, 'if-none-match') === etag) return finish(res, 304)
  const conditional = getHeader(event, 'if-range')
  const range = conditional && conditional !== etag ? 'whole' : rangeOf(getHeader(event, 'range'), info.size)
  if (range === 'outside') {
    setResponseHeaders(event, { 'content-range': `bytes */${info.size}` })
    return finish(res, 416)
  }
  const { start, end } = range === 'whole' ? { start: 0, end: info.size - 1 } : range
  setResponseStatus(event, range === 'whole' ? 200 : 206)
  setResponseHeaders(event, { 'content-length': end - start + 1, ...(range === 'whole' ? {} : { 'content-range': `bytes ${start}-${end}/${info.size}` }) })
  if (event.method === 'HEAD' || info.size === 0) {
    res.end()
    return
  }
  const sent = await pour(info.handle, start, end, res)
  // A file that ended early must not look whole to a reader who waits for the rest.
  if (!sent && !res.destroyed) res.destroy()
}

function finish(res: { statusCode: number, end: () => void }, status: number): void {
  res.statusCode = status
  res.end()
}
