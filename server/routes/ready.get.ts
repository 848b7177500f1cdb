import { route } from '~~/server/http/route'
import { database } from '~~/server/models/database'
import { Refusal } from '~~/server/services/errors'
import { isReady } from '~~/server/services/readiness'

defineRouteMeta({ openAPI: { tags: ['running'], summary: 'The process can do its work: database, migrations, clock' } })

export default route(async () => {
  await database.query('SELECT 1').catch(() => {
    throw new Refusal(503, 'The database does not answer.')
  })
  if (!isReady()) throw new Refusal(503, 'Still beginning.')
  return { ready: true }
})
