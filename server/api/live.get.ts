import { createEventStream, type EventStream } from 'h3'
import type { LiveEvent } from '~~/shared/live/events'
import { onClockChange, clockSetting } from '~~/server/adapters/clock'
import { route, signedIn } from '~~/server/http/route'
import { whoIs } from '~~/server/services/access'
import { sectionsOf } from '~~/server/services/library'
import { listen } from '~~/server/services/live'

defineRouteMeta({ openAPI: { tags: ['live'], summary: 'Server-sent events: what has changed' } })

/** Comes often enough that a proxy does not take the line for dead. */
const BEAT_MS = 25_000

export default route(async (event) => {
  const { who } = await signedIn(event)
  let mine = sectionsOf(who)
  const stream: EventStream = createEventStream(event)
  const push = (e: LiveEvent) => void stream.push(JSON.stringify(e)).catch(() => {})
  const concerns = (e: LiveEvent) => {
    if (e.topic === 'notice') return e.personId === who.id
    if (mine === null || e.topic === 'hello' || e.topic === 'again' || e.topic === 'clock') return true
    if (e.topic === 'timetable') return e.sectionIds === null || e.sectionIds.some((id) => mine!.includes(id))
    return 'sectionId' in e && e.sectionId !== null && mine.includes(e.sectionId)
  }
  const stop = [
    listen((e) => concerns(e) && push(e)),
    onClockChange((clock) => push({ topic: 'clock', clock, serverNow: Date.now() })),
  ]
  const beat = setInterval(() => {
    void whoIs(who.id).then((again) => (mine = sectionsOf(again)))
    push({ topic: 'clock', clock: clockSetting(), serverNow: Date.now() })
  }, BEAT_MS)
  stream.onClosed(async () => {
    clearInterval(beat)
    stop.forEach((end) => end())
    await stream.close()
  })
  // Nothing is sent, not even the headers, before the first push.
  push({ topic: 'hello' })
  return stream.send()
})
