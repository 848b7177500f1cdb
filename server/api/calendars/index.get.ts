import { route, signedIn } from '~~/server/http/route'
import { myAddresses } from '~~/server/services/calendars'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'My private calendar addresses that hold' } })

export default route(async (event) => myAddresses((await signedIn(event)).who.id))
