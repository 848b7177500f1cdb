/**
 * Requests that change something must come from our own pages. Browsers send `Origin` with every
 * such request across origins, and `Sec-Fetch-Site` with all; programs with a key of their own send
 * no cookie, so nothing can be done in somebody's name through them.
 */
import { defineEventHandler, getCookie, getHeader, setResponseStatus } from 'h3'
import { originOf } from '../http/route'

const HARMLESS = new Set(['GET', 'HEAD', 'OPTIONS'])

export default defineEventHandler((event) => {
  if (HARMLESS.has(event.method)) return
  const origin = getHeader(event, 'origin')
  const site = getHeader(event, 'sec-fetch-site')
  const foreign = (origin !== undefined && origin !== originOf(event)) || (site !== undefined && site !== 'same-origin')
  const unexplained = origin === undefined && site === undefined && getCookie(event, 'karstland') !== undefined
  if (!foreign && !unexplained) return
  setResponseStatus(event, 403)
  return { sentence: 'This came from another site, so it was not done.' }
})
