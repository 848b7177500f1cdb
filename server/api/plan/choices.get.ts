import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { planChoices } from '~~/server/services/planning'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Sections, presenters and rooms to plan with' } })

export default route(async (event) => {
  must(ask((await signedIn(event)).who, 'plan', { kind: 'house' }))
  return planChoices()
})
