import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { dropImport } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Drops an import that was not taken in' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  await dropImport(idOf(event))
  return { done: true }
})
