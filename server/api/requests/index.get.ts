import { route, signedIn } from '~~/server/http/route'
import { planningSections } from '~~/server/services/planners'
import { requestsFor } from '~~/server/services/requests'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Requests that wait or were answered' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  planningSections(who)
  return requestsFor(who)
})
