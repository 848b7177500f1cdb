/** Rooms as the day sees them: with their recorder's last word. */
import type { RecorderReport } from '~~/shared/capture/report'
import type { RoomState } from '~~/shared/capture/views'
import { campusNow } from '../adapters/clock'
import { Recorder } from '../models/recorder'
import { rooms } from './choices'

/** A recorder that was silent for longer than this, in campus time, does not answer. */
const SILENCE_MS = 120_000

export async function roomStates(): Promise<RoomState[]> {
  const [all, recorders] = await Promise.all([rooms(), Recorder.findAll({ raw: true })])
  const byRoom = new Map(recorders.map((r) => [r.roomId, r]))
  const now = campusNow()
  return all.map((room) => {
    const recorder = byRoom.get(room.id)
    const report = recorder?.report as RecorderReport | null | undefined
    const heard = recorder?.lastReportAt?.getTime() ?? null
    return {
      ...room, recorder: recorder?.name ?? null, heardAt: heard, answers: heard !== null && now - heard < SILENCE_MS,
      state: report?.state ?? null, levelDb: report?.levelDb ?? null, freeBytes: report?.freeBytes ?? null, trouble: report?.trouble ?? '',
    }
  })
}
