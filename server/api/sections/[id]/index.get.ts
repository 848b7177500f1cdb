import { idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { sectionPage } from '~~/server/services/sections'

defineRouteMeta({ openAPI: { tags: ['term'], summary: 'A section’s class list and defaults' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'section', sectionId: idOf(event) }))
  return sectionPage(who, idOf(event))
})
