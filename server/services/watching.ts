/** Watching: what a player needs, or why there is none; and what was watched. */
import { leftWords } from '~~/core/media/forecast'
import { refusalSentence } from '~~/core/access/sentence'
import { resumeAt, union } from '~~/core/watch/spans'
import { wallOf, weekdayNames, weekdayOf } from '~~/core/term/calendar'
import type { Refused, WatchView } from '~~/shared/watch/watch'
import type { WatchProgress } from '~~/shared/watch/progress'
import type { Who } from '~~/core/access/decide'
import { campusDate } from '../adapters/clock'
import { database } from '../models/database'
import { Recording } from '../models/recording'
import { Undertaking } from '../models/undertaking'
import { Viewing } from '../models/viewing'
import { QueryTypes } from 'sequelize'
import { askRecording, whoIs } from './access'
import { grantFor } from './grants'
import { tell } from './live'
import type { SignedIn } from './sessions'
import { currentTerm } from './term'

/** A recording for somebody who came by `way`: the player's facts, or what to say instead. */
export async function watchView(visitor: SignedIn | undefined, recordingId: string, way: 'address' | 'placement', section: string): Promise<WatchView | Refused> {
  const answer = await askRecording(await whoIs(visitor?.personId), 'watch', recordingId, way)
  if (!answer.allowed || !visitor) {
    const no = answer.allowed ? { allowed: false as const, reasons: ['not-signed-in' as const], say: 'sign-in' as const } : answer
    if (no.say === 'hidden') return { say: 'hidden', title: 'Nothing here', advice: 'There is nothing at this address. It may have been taken back, or the address is not whole.' }
    const { term } = await currentTerm()
    return { say: no.say, ...refusalSentence(no, section, no.opensAt ? dayWords(term.zone, no.opensAt) : '') }
  }
  return facts(visitor, recordingId)
}

/** `Wed 11 Nov, 10:00` */
export function dayWords(zone: string, instant: number): string {
  const { date, time } = wallOf(zone, instant)
  const month = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'][Number(date.slice(5, 7)) - 1]
  return `${weekdayNames[weekdayOf(date) - 1]} ${Number(date.slice(8))} ${month}, ${time}`
}

async function facts(visitor: SignedIn, recordingId: string): Promise<WatchView> {
  const { term } = await currentTerm()
  const [recording, work, viewing, [place]] = await Promise.all([
    Recording.findByPk(recordingId, { raw: true }),
    Undertaking.findOne({ where: { recordingId }, raw: true }),
    Viewing.findOne({ where: { recordingId, personId: visitor.personId }, raw: true }),
    database.query<{ section: string, start: Date | null, room: string | null, presenter: string }>(`
      SELECT co.code || '/' || s.number || ' ' || co.title AS section, c.starts_at AS start, ro.name AS room, p.name AS presenter
      FROM recordings r JOIN people p ON p.id = r.owner_id LEFT JOIN captures c ON c.id = r.capture_id LEFT JOIN rooms ro ON ro.id = c.room_id
        JOIN filings f ON f.recording_id = r.id JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id JOIN courses co ON co.id = s.course_id
      WHERE r.id = $recordingId ORDER BY f.position LIMIT 1`, { bind: { recordingId }, type: QueryTypes.SELECT }),
  ])
  const { state } = recording!
  return {
    recordingId, name: recording!.name, section: place?.section ?? '', room: place?.room ?? '', presenter: place?.presenter ?? '',
    when: place?.start ? dayWords(term.zone, place.start.getTime()) : '',
    state, waiting: waitingWords(state, work), percent: state === 'being_made' ? work?.percent ?? null : null,
    seconds: recording!.durationS, hasCamera: recording!.hasCamera, hasPicture: recording!.hasPicture,
    resumeAt: viewing && recording!.durationS ? resumeAt(viewing.positionS, recording!.durationS) : 0,
    grant: state === 'ready' ? grantFor(recordingId, visitor.personId, visitor.sessionId) : null,
  }
}

/** Where an unfinished recording is, for somebody who waits to watch it. */
function waitingWords(state: Recording['state'], work: Undertaking | null): string {
  switch (state) {
    case 'ready': return ''
    case 'recording': return 'It is being recorded right now. It will play here when it is over and made.'
    case 'coming_in': return 'It has been recorded and is on its way here.'
    case 'being_made': return `It is being made ready to watch${work?.leftS ? `, ${leftWords(work.leftS)}` : ''}. This page turns into the player by itself.`
    case 'failed': return 'It could not be made ready. The media team can see why and has been left a note.'
  }
}

/** Adds watched spans and keeps the place. Sent twice, it counts once. */
export async function watched(who: Extract<Who, { kind: 'person' }>, recordingId: string, progress: WatchProgress, placementId: string | null): Promise<void> {
  await database.transaction(async (transaction) => {
    const recording = (await Recording.findByPk(recordingId, { transaction, raw: true }))!
    // The row is made first and then locked, so that two players of one person do not lose each other's spans.
    await database.query(`INSERT INTO viewings (recording_id, person_id, placement_id, seen_at) VALUES ($recordingId, $personId, $placementId, $at)
      ON CONFLICT (recording_id, person_id) DO NOTHING`, { bind: { recordingId, personId: who.id, placementId, at: campusDate() }, transaction })
    const viewing = (await Viewing.findOne({ where: { recordingId, personId: who.id }, transaction, lock: true }))!
    const first = viewing.spans.length === 0
    const spans = union([...viewing.spans, ...progress.spans], recording.durationS ?? undefined)
    await viewing.update({ spans, positionS: progress.positionS, seenAt: campusDate() }, { transaction })
    if (first && spans.length) {
      const sections = await database.query<{ id: string }>('SELECT d.section_id AS id FROM filings f JOIN folders d ON d.id = f.folder_id WHERE f.recording_id = $recordingId', { bind: { recordingId }, type: QueryTypes.SELECT, transaction })
      for (const { id } of sections) await tell({ topic: 'recording', id: recordingId, sectionId: id }, transaction)
    }
  })
}
