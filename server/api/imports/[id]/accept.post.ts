import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { decideImport, importView, withDecisions } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Takes the whole set of ways out that was proposed' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  const { timetable } = await importView(idOf(event))
  await decideImport(idOf(event), (options) => withDecisions(options, (timetable?.proposals ?? []).map(({ plan, dates, way }) => ({ plan, dates, way }))))
  return { done: true }
})
