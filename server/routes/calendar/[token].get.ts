import { getRouterParam, setHeader } from 'h3'
import { route } from '~~/server/http/route'
import { readAddress } from '~~/server/services/calendars'
import { nothingHere } from '~~/server/services/errors'

/** Read by calendar programs, which cannot sign in: the address itself is the key. */
export default route(async (event) => {
  const token = /^([\w-]{20,100})\.ics$/.exec(getRouterParam(event, 'token') ?? '')?.[1]
  if (!token) throw nothingHere()
  const text = await readAddress(token)
  setHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setHeader(event, 'cache-control', 'private, max-age=300')
  return text
})
