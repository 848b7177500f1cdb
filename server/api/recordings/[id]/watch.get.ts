import { idOf, route, visitor } from '~~/server/http/route'
import { watchView } from '~~/server/services/watching'

defineRouteMeta({ openAPI: { tags: ['watch'], summary: 'What a player needs, or why there is none' } })

export default route(async (event) => watchView(await visitor(event), idOf(event), 'address', 'another class'))
