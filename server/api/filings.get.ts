import { getQuery } from 'h3'
import { route, signedIn } from '~~/server/http/route'
import { ask, must } from '~~/server/services/access'
import { nothingHere } from '~~/server/services/errors'
import { filingsOf } from '~~/server/services/library'

defineRouteMeta({ openAPI: { tags: ['library'], summary: 'What lies in a section’s folder, or the newest of all sections' } })

export default route(async (event) => {
  const { who } = await signedIn(event)
  const { section } = getQuery(event)
  if (section === undefined) return filingsOf(who, null, 120)
  if (typeof section !== 'string' || !/^[0-9a-f-]{36}$/.test(section)) throw nothingHere()
  must(ask(who, 'browse', { kind: 'section', sectionId: section }))
  return filingsOf(who, section)
})
