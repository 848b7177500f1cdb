import { setResponseStatus } from 'h3'
import { BeginRollOver } from '~~/shared/imports/requests'
import { body, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { beginRollOver } from '~~/server/services/imports'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Lays the plans of one term onto another, to be looked over' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'house' }))
  const { fromTermId, toTermId } = await body(event, BeginRollOver)
  setResponseStatus(event, 201)
  return beginRollOver(fromTermId, toTermId, who.id)
})
