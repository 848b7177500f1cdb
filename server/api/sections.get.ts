import { route, signedIn } from '~~/server/http/route'
import { sectionList } from '~~/server/services/library'

defineRouteMeta({ openAPI: { tags: ['library'], summary: 'The sections of the term that the reader may browse' } })

export default route(async (event) => sectionList((await signedIn(event)).who))
