/** Figures for a Prometheus-compatible collector. */
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'
import { QueryTypes } from 'sequelize'
import { database } from '../models/database'
import { listenerCount } from './live'

export const registry = new Registry()
registry.setDefaultLabels({ program: process.env.KARSTLAND_ROLE ?? 'web' })
collectDefaultMetrics({ register: registry })

export const requestSeconds = new Histogram({
  name: 'karstland_request_seconds', help: 'Seconds until a request was answered, by route and status', labelNames: ['method', 'route', 'status'],
  buckets: [0.005, 0.02, 0.1, 0.5, 2, 10], registers: [registry],
})

new Gauge({
  name: 'karstland_live_listeners', help: 'Open live streams and other listeners in this process', registers: [registry],
  collect() {
    this.set(listenerCount())
  },
})

new Gauge({
  name: 'karstland_undertakings', help: 'Makings by state', labelNames: ['state'], registers: [registry],
  async collect() {
    const rows = await database.query<{ state: string, count: number }>('SELECT state, count(*) AS count FROM undertakings GROUP BY 1', { type: QueryTypes.SELECT })
    this.reset()
    for (const { state, count } of rows) this.set({ state }, count)
  },
})
