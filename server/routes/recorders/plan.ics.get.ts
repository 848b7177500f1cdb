import { createHash } from 'node:crypto'
import { getHeader, setResponseHeaders, setResponseStatus } from 'h3'
import { bearer, route } from '~~/server/http/route'
import { recorderOf, recorderPlan } from '~~/server/services/recorders'

defineRouteMeta({ openAPI: { tags: ['recorders'], summary: 'A recorder’s plan as iCalendar (RFC 5545); answers 304 while nothing changes' } })

export default route(async (event) => {
  const text = await recorderPlan(await recorderOf(bearer(event)))
  const etag = `"${createHash('sha256').update(text).digest('base64url').slice(0, 22)}"`
  setResponseHeaders(event, { 'content-type': 'text/calendar; charset=utf-8', etag, 'cache-control': 'private, no-cache' })
  if (getHeader(event, 'if-none-match') === etag) {
    setResponseStatus(event, 304)
    return null
  }
  return text
})
