import { getQuery } from 'h3'
import { route, signedIn, termAsked } from '~~/server/http/route'
import { sectionsOf } from '~~/server/services/library'
import { termOverview } from '~~/server/services/term'

defineRouteMeta({ openAPI: { tags: ['term'], summary: 'The current term: weeks, and captures and trouble on each day' } })

export default route(async (event) => termOverview(sectionsOf((await signedIn(event)).who), termAsked(getQuery(event).term)))
