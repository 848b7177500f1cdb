import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { captureOf } from '~~/server/services/captures'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'One capture with its plan' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const capture = await captureOf(idOf(event))
  must(ask(who, 'browse', { kind: 'section', sectionId: capture.sectionId }))
  return capture
})
