/** Streams, poster and sound level from a source file. */
import { mkdir, readFile, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { StreamPlan } from '~~/core/media/plan'
import type { SoundLevel } from '~~/shared/library/views'
import { guards, run } from './run'

export interface MakeOptions {
  signal?: AbortSignal
  /** called with seconds of media done */
  onSeconds?: (seconds: number) => void
  /** length of the source, for the time limit; 0 when unknown */
  length: number
}

const limitFor = (length: number) => Math.ceil(600 + length * 20)

/**
 * Makes one HLS stream as `index.m3u8` and `index.m4s` (one file, read by ranges) in `folder`.
 * The folder appears whole or not at all, so one that is there never has to be made again.
 * @returns its length in seconds, from the playlist
 */
export async function makeStream(source: string, plan: StreamPlan, folder: string, options: MakeOptions): Promise<number> {
  const part = `${folder}.part`
  await rm(part, { recursive: true, force: true })
  await mkdir(part, { recursive: true })
  const video = plan.video === null ? ['-vn'] : ['-map', `0:v:${plan.video}`, ...(plan.copyVideo ? ['-c:v', 'copy'] : encode(plan))]
  const audio = plan.audio === null ? ['-an'] : ['-map', `0:a:${plan.audio}`, ...(plan.copyAudio ? ['-c:a', 'copy'] : ['-c:a', 'aac', '-b:a', '96k', '-ac', '2'])]
  await run('ffmpeg', ['-nostdin', '-y', ...guards, '-i', source, ...video, ...audio, '-sn', '-dn', '-map_metadata', '-1', '-max_muxing_queue_size', '4096',
    '-progress', 'pipe:1', '-f', 'hls', '-hls_time', '4', '-hls_playlist_type', 'vod', '-hls_segment_type', 'fmp4',
    '-hls_flags', 'independent_segments+single_file', join(part, 'index.m3u8')],
  { seconds: limitFor(options.length), signal: options.signal, onLine: onProgress(options.onSeconds) })
  const seconds = lengthOf(await readFile(join(part, 'index.m3u8'), 'utf8'))
  if (!seconds) throw new Error('no playable second came out of this stream')
  await rm(folder, { recursive: true, force: true })
  await rename(part, folder)
  return seconds
}

const encode = (plan: StreamPlan) => ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '23', '-pix_fmt', 'yuv420p', '-vf', `scale=${plan.width}:${plan.height}`,
  '-fps_mode', 'cfr', '-sc_threshold', '0', '-force_key_frames', 'expr:gte(t,n_forced*4)', '-threads', '2']

/** Seconds of a media playlist: the sum of its segments. */
export function lengthOf(playlist: string): number {
  return [...playlist.matchAll(/^#EXTINF:([\d.]+)/gm)].reduce((sum, m) => sum + Number(m[1]), 0)
}

function onProgress(onSeconds?: (seconds: number) => void) {
  return (line: string) => {
    const us = /^out_time_us=(\d+)/.exec(line)?.[1]
    if (us) onSeconds?.(Number(us) / 1e6)
  }
}

/** A still picture at `at` seconds, 640 wide, as JPEG. */
export async function makePoster(source: string, video: number, at: number, file: string, signal?: AbortSignal): Promise<void> {
  const part = `${file}.part`
  await run('ffmpeg', ['-nostdin', '-y', ...guards, '-ss', String(at), '-i', source, '-map', `0:v:${video}`, '-frames:v', '1',
    '-vf', 'scale=640:-2', '-q:v', '4', '-update', '1', '-f', 'image2', part], { seconds: 120, signal })
  await rename(part, file)
}

const PARTS = 120

/** Loudness over time (EBU R128) in one decode of the sound. */
export async function soundLevel(source: string, options: MakeOptions): Promise<SoundLevel> {
  const { err } = await run('ffmpeg', ['-nostdin', ...guards, '-i', source, '-map', '0:a:0', '-vn', '-af', 'aresample=16000,ebur128=framelog=info', '-progress', 'pipe:1', '-f', 'null', '-', '-loglevel', 'info'],
    { seconds: limitFor(options.length), signal: options.signal, onLine: onProgress(options.onSeconds), wholeError: true })
  return readLevel(err)
}

/** Reads ebur128's log: momentary loudness every 0.1 s, and the summary. */
export function readLevel(log: string): SoundLevel {
  const moments = [...log.matchAll(/ t:\s*([\d.]+)\s.* M:\s*(-?[\d.]+|nan|-inf)/g)].map((m) => ({ t: Number(m[1]), m: Math.max(-70, Number(m[2]) || -70) }))
  const length = moments.at(-1)?.t ?? 0
  const shape = Array.from({ length: PARTS }, () => -70)
  for (const { t, m } of moments) {
    const part = Math.min(PARTS - 1, Math.floor(t / length * PARTS))
    shape[part] = Math.max(shape[part]!, m)
  }
  const summary = /Integrated loudness:\s+I:\s+(-?[\d.]+) LUFS/.exec(log)?.[1]
  const loudness = summary === undefined || Number(summary) <= -69.9 ? null : Number(summary)
  return { loudness, heard: moments.length ? moments.filter((m) => m.m > -50).length / moments.length : 0, shape }
}
