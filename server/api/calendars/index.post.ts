import { setResponseStatus } from 'h3'
import { AskCalendar } from '~~/shared/timetable/calendars'
import { body, originOf, route, signedIn } from '~~/server/http/route'
import { makeAddress, mustReadCalendar } from '~~/server/services/calendars'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Makes a private calendar address; it is told once' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const wish = await body(event, AskCalendar)
  mustReadCalendar(who, wish)
  setResponseStatus(event, 201)
  return makeAddress(wish, who.id, originOf(event))
})
