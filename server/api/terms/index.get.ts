import { route, signedIn } from '~~/server/http/route'
import { termChoices } from '~~/server/services/term'

defineRouteMeta({ openAPI: { tags: ['term'], summary: 'All terms, the latest first' } })

export default route(async (event) => {
  await signedIn(event)
  return termChoices()
})
