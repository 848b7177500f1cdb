import { getQuery, setHeader } from 'h3'
import { AskCalendar } from '~~/shared/timetable/calendars'
import { check } from '~~/shared/validate'
import { route, signedIn } from '~~/server/http/route'
import { calendarText, mustReadCalendar } from '~~/server/services/calendars'
import { nothingHere } from '~~/server/services/errors'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'The timetable of a room, section or person as an iCalendar file' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const { kind, id } = getQuery(event)
  const found = await check(AskCalendar, { kind, id })
  if ('errors' in found) throw nothingHere()
  mustReadCalendar(who, found.value)
  const { name, text } = await calendarText(found.value)
  setHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${name.replace(/[^\w-]+/g, '-')}.ics"`)
  return text
})
