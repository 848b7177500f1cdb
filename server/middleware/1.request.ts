/** Every request has an id, a log line and a place in the figures. */
import { randomUUID } from 'node:crypto'
import { defineEventHandler, getHeader, setResponseHeader } from 'h3'
import { log } from '../services/log'
import { requestSeconds } from '../services/metrics'

export default defineEventHandler((event) => {
  const given = getHeader(event, 'x-request-id')
  const requestId = given && /^[\w.-]{1,80}$/.test(given) ? given : randomUUID()
  event.context.requestId = requestId
  setResponseHeader(event, 'x-request-id', requestId)
  const began = performance.now()
  event.node.res.once('close', () => {
    const seconds = (performance.now() - began) / 1000
    // The pattern, not the address: neither logs nor figures shall hold a way in.
    const route = event.context.matchedRoute?.path ?? 'page'
    const status = event.node.res.statusCode
    requestSeconds.observe({ method: event.method, route, status }, seconds)
    if (event.path.startsWith('/_nuxt/') || route === '/ready' || route === '/health') return
    // Pieces of video come by the hundred for each viewer: their figures are kept, their lines only on demand.
    const level = status >= 500 ? 'error' : route.startsWith('/media/') ? 'debug' : 'info'
    log[level]({ requestId, method: event.method, route, status, ms: Math.round(seconds * 1000) }, 'request')
  })
})
