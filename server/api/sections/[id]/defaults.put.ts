import { SectionDefaults } from '~~/shared/term/section'
import { body, idOf, route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { saveDefaults } from '~~/server/services/sections'

defineRouteMeta({ openAPI: { tags: ['term'], summary: 'Saves what a section settles by default' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  must(ask(who, 'plan', { kind: 'section', sectionId: idOf(event) }))
  await saveDefaults(idOf(event), await body(event, SectionDefaults), who.id)
  return { sentence: 'Saved. It holds for what is recorded from now on.' }
})
