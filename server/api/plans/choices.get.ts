import { getQuery } from 'h3'
import { route, signedIn, termAsked } from '~~/server/http/route'
import { planChoices } from '~~/server/services/choices'
import { planningSections } from '~~/server/services/planners'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Sections, presenters and rooms to plan with' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  return planChoices(planningSections(who), termAsked(getQuery(event).term))
})
