import { getRequestIP, setResponseHeader } from 'h3'
import { bearer, route } from '~~/server/http/route'
import { nothingHere } from '~~/server/services/errors'
import { registry } from '~~/server/services/metrics'

defineRouteMeta({ openAPI: { tags: ['running'], summary: 'Figures for a collector: from this machine, or with METRICS_KEY' } })

export default route(async (event) => {
  const local = ['127.0.0.1', '::1', '::ffff:127.0.0.1'].includes(getRequestIP(event) ?? '')
  const key = process.env.METRICS_KEY
  if (key ? bearer(event) !== key : !local) throw nothingHere()
  setResponseHeader(event, 'content-type', registry.contentType)
  return registry.metrics()
})
