/** The birth of a recording, and its way from the recorder's file to the queue. */
import { Op, type Transaction } from 'sequelize'
import { recordingName } from '~~/core/capture/name'
import { placeOf, wallOf } from '~~/core/term/calendar'
import { mayFollow } from '~~/core/capture/states'
import { campusDate, campusNow } from '../adapters/clock'
import { enqueue } from '../adapters/queue'
import { database } from '../models/database'
import { Capture } from '../models/capture'
import { Course } from '../models/course'
import { Filing } from '../models/filing'
import { Recording } from '../models/recording'
import { Section } from '../models/section'
import { SourceFile } from '../models/source-file'
import { Undertaking } from '../models/undertaking'
import { currentTerm } from './term'
import { tell } from './live'
import { folderFor } from './sections'

/** A capture has started: its recording gets address, name and place in the folder. Saying it twice changes nothing. */
export async function startRecording(captureId: string, roomId: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const capture = await Capture.findByPk(captureId, { transaction, lock: true })
    if (!capture || capture.roomId !== roomId || !mayFollow(capture.state, 'recording')) return
    await bornFrom(capture, transaction)
    await capture.update({ state: 'recording' }, { transaction })
    await tell({ topic: 'capture', id: capture.id, sectionId: capture.sectionId }, transaction)
  })
}

/** The recording of a capture: found, or made with its name and filing. The capture's row is locked by the caller. */
async function bornFrom(capture: Capture, transaction: Transaction): Promise<Recording> {
  const there = await Recording.findOne({ where: { captureId: capture.id }, transaction })
  if (there) return there
  const lectureNumber = capture.lectureNumber ?? await numberOf(capture, transaction)
  await capture.update({ lectureNumber }, { transaction })
  const section = (await Section.findByPk(capture.sectionId, { transaction }))!
  const course = (await Course.findByPk(section.courseId, { transaction }))!
  const { term } = await currentTerm()
  const day = wallOf(term.zone, capture.startsAt.getTime())
  const { week } = placeOf(term, day.date)
  const recording = await Recording.create({
    captureId: capture.id,
    ownerId: capture.presenterId,
    name: recordingName({
      section: `${course.code}/${section.number}`, week: week?.number ?? null, otherwise: week?.label ?? day.date,
      weekday: day.weekday, topic: capture.topic, lectureNumber,
    }),
    state: 'recording',
    createdAt: campusDate(),
  }, { transaction })
  const folder = await folderFor(capture, { id: section.id, course: course.code, number: section.number }, term, transaction)
  await Filing.create({ folderId: folder.id, recordingId: recording.id, position: capture.startsAt.getTime() / 1000 }, { transaction })
  await tell({ topic: 'recording', id: recording.id, sectionId: section.id }, transaction)
  return recording
}

/** The place among the section's captures that are not left out. */
async function numberOf(capture: Capture, transaction: Transaction): Promise<number> {
  return 1 + await Capture.count({
    where: { sectionId: capture.sectionId, state: { [Op.notIn]: ['left_out', 'cancelled'] }, startsAt: { [Op.lt]: capture.startsAt } }, transaction,
  })
}

export interface ArrivedFile { uploadId: string, captureId: string, roomId: string, name: string, bytes: number, requestId: string }

/** A recorder's file is whole in the incoming folder: books it, and queues its making. Booking it twice changes nothing. */
export async function bookArrival(file: ArrivedFile): Promise<{ recordingId: string, storeKey: string } | undefined> {
  return database.transaction(async (transaction) => {
    const capture = await Capture.findByPk(file.captureId, { transaction, lock: true })
    if (!capture || capture.roomId !== file.roomId) return undefined
    const booked = await SourceFile.findOne({ where: { uploadId: file.uploadId }, transaction })
    if (booked) return { recordingId: booked.recordingId, storeKey: booked.storeKey }
    const recording = await bornFrom(capture, transaction)
    const storeKey = `originals/${recording.id}/${file.uploadId}`
    await SourceFile.create({ recordingId: recording.id, uploadId: file.uploadId, name: file.name, bytes: file.bytes, storeKey, arrivedAt: campusDate() }, { transaction })
    await recording.update({ state: 'being_made', trouble: '' }, { transaction })
    if (mayFollow(capture.state, 'being_made')) await capture.update({ state: 'being_made' }, { transaction })
    else if (mayFollow(capture.state, 'coming_in')) await capture.update({ state: 'being_made' }, { transaction })
    await queueMaking(recording, capture.sectionId, file.requestId, transaction)
    return { recordingId: recording.id, storeKey }
  })
}

/** Puts the making of a recording into the queue, and into “Under way”. */
export async function queueMaking(recording: Recording, sectionId: string, requestId: string, transaction: Transaction): Promise<void> {
  await Undertaking.upsert({
    kind: 'making', recordingId: recording.id, state: 'waiting', step: 'waiting for a worker', percent: 0, leftS: null, sentence: '',
    askedAt: new Date(campusNow()), beganAt: null, endedAt: null, attempts: 0,
  }, { transaction, conflictFields: ['recording_id' as never] })
  await enqueue(transaction, 'make_recording', { recordingId: recording.id, requestId }, `make ${recording.id}`)
  await tell({ topic: 'recording', id: recording.id, sectionId }, transaction)
  if (recording.captureId) await tell({ topic: 'capture', id: recording.captureId, sectionId }, transaction)
}
