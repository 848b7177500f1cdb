import { getQuery } from 'h3'
import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { importList } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'What was brought in lately' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return importList(String(getQuery(event).kinds ?? 'timetable').split(','))
})
