import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { importView } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'An import with its dry run' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return importView(idOf(event))
})
