import { getQuery } from 'h3'
import { route, signedIn } from '~~/server/http/route'
import { Refusal } from '~~/server/services/errors'
import { sectionsOf } from '~~/server/services/library'
import { capturesIn } from '~~/server/services/captures'

defineRouteMeta({ openAPI: { tags: ['timetable'], summary: 'Captures that start between two instants (ms)' } })

const MOST_MS = 40 * 24 * 3600_000

export default route(async (event) => {
  const { who } = await signedIn(event)
  const { from, to } = getQuery(event)
  const span = { from: Number(from), to: Number(to) }
  if (!(span.to > span.from) || span.to - span.from > MOST_MS || !Number.isFinite(new Date(span.to).getTime())) {
    throw new Refusal(422, 'Ask for captures between two instants in milliseconds, at most 40 days apart.')
  }
  return capturesIn({ ...span, sectionIds: sectionsOf(who) })
})
