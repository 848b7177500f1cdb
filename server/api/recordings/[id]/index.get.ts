import { idOf, route, signedIn } from '~~/server/http/route'
import { recordingView } from '~~/server/services/library'

defineRouteMeta({ openAPI: { tags: ['library'], summary: 'One recording with its road, release, placements and record' } })

export default route(async (event) => recordingView((await signedIn(event)).who, idOf(event)))
