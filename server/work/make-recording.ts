/**
 * Makes a recording from the file that arrived: looks into it, refuses what is no recording, makes
 * its streams, a poster and the sound level. Every result appears whole or not at all, so after a
 * kill at any point the next run finds what is done and does only the rest.
 */
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import { planStreams, type StreamPlan } from '~~/core/media/plan'
import { refusalOf, type Probe } from '~~/core/media/probe'
import type { SoundLevel } from '~~/shared/library/views'
import { missingIn, probeFile } from '../adapters/ffmpeg/probe'
import { lengthOf, makePoster, makeStream, soundLevel } from '../adapters/ffmpeg/streams'
import { exists, keepOriginal, pathOf } from '../adapters/store'
import { Recording } from '../models/recording'
import { SourceFile } from '../models/source-file'
import { becamePlayable, couldNotMake, madeWhole, Progress } from '../services/making'
import { log } from '../services/log'

/** Shares of the whole that each step takes, copying; encoding takes nearly all of it. */
const WEIGHT = { streams: 0.5, poster: 0.05, level: 0.45 }

export async function makeRecording({ recordingId, requestId }: { recordingId: string, requestId: string }, signal: AbortSignal): Promise<void> {
  const source = await SourceFile.findOne({ where: { recordingId }, order: [['arrivedAt', 'DESC']] })
  if (!source) return
  const logger = log.child({ recordingId, requestId })
  await keepOriginal(source.uploadId, source.storeKey)
  const path = pathOf(source.storeKey)
  const { bytes, missing } = await missingIn(path)
  const probe = bytes ? await probeFile(path, signal) : null
  const progress = await Progress.begin(recordingId, probe?.duration ?? 0)
  if (!progress) return
  const refusal = refusalOf(bytes, probe, missing)
  if (refusal || !probe) {
    logger.warn({ refusal: refusal?.code, bytes, missing }, 'file refused')
    await couldNotMake(recordingId, refusal?.sentence ?? '')
    return
  }
  await source.update({ probe })
  const prefix = `media/${recordingId}`
  await mkdir(pathOf(prefix), { recursive: true })
  const plans = planStreams(probe)
  logger.info({ plans }, 'making begins')
  const durationS = await makeStreams(path, prefix, plans, probe, progress, signal)
  await becamePlayable(recordingId, { storePrefix: prefix, durationS, hasCamera: plans.length > 1, hasPicture: plans[0]!.video !== null })
  await posterOf(path, prefix, plans[0]!, durationS, progress, signal)
  const level = await levelOf(path, prefix, probe, durationS, progress, signal)
  await madeWhole(recordingId, level)
  logger.info({ durationS }, 'made')
}

async function makeStreams(path: string, prefix: string, plans: StreamPlan[], probe: Probe, progress: Progress, signal: AbortSignal): Promise<number> {
  let longest = 0
  for (const [i, plan] of plans.entries()) {
    const folder = pathOf(prefix, plan.role)
    const step = plan.role === 'screen' ? 'making the streams' : 'making the camera stream'
    const share = (seconds: number) => WEIGHT.streams * (i + Math.min(1, probe.duration ? seconds / probe.duration : 0)) / plans.length
    await progress.at(share(0), step)
    const length = await exists(folder)
      ? lengthOf(await readFile(`${folder}/index.m3u8`, 'utf8'))
      : await makeStream(path, plan, folder, { signal, length: probe.duration, onSeconds: (s) => void progress.at(share(s), step).catch(() => {}) })
    longest = Math.max(longest, length)
  }
  return longest
}

/** The poster is taken a little into the recording: the first picture is often an empty screen. */
async function posterOf(path: string, prefix: string, plan: StreamPlan, durationS: number, progress: Progress, signal: AbortSignal): Promise<void> {
  const file = pathOf(prefix, 'poster.jpg')
  if (plan.video === null || await exists(file)) return
  await progress.at(WEIGHT.streams, 'taking a poster')
  await makePoster(path, plan.video, Math.min(20, durationS * 0.1), file, signal)
}

async function levelOf(path: string, prefix: string, probe: Probe, durationS: number, progress: Progress, signal: AbortSignal): Promise<SoundLevel | null> {
  if (!probe.audio.length) return null
  const file = pathOf(prefix, 'level.json')
  if (await exists(file)) return JSON.parse(await readFile(file, 'utf8')) as SoundLevel
  const begin = WEIGHT.streams + WEIGHT.poster
  const level = await soundLevel(path, {
    signal, length: durationS,
    onSeconds: (s) => void progress.at(begin + WEIGHT.level * Math.min(1, s / durationS), 'measuring the sound').catch(() => {}),
  })
  await writeFile(file, JSON.stringify(level))
  return level
}

/** For a recording whose making ended for good after several tries. */
export async function giveUp(recordingId: string): Promise<void> {
  const recording = await Recording.findByPk(recordingId)
  if (recording) await couldNotMake(recordingId, 'Making stopped several times for a reason we did not foresee. The file is kept; “make again” may help, otherwise the team has it in the log.')
}
