/** ffprobe's answer as core/media knows it. */
import { missingBytes, readBoxes } from '~~/core/media/boxes'
import type { Probe } from '~~/core/media/probe'
import { openRanges } from '../store'
import { guards, MediaToolError, run } from './run'

interface RawStream {
  codec_type: string, codec_name?: string, pix_fmt?: string, width?: number, height?: number, avg_frame_rate?: string
  channels?: number, sample_rate?: string, disposition?: { attached_pic?: number }
}

/** Key frames are looked for in this many seconds from the start. */
const LOOK_S = 24

/** Reads a file's tracks. @returns null when it is no media of an allowed container */
export async function probeFile(path: string, signal?: AbortSignal): Promise<Probe | null> {
  try {
    const { out } = await run('ffprobe', [...guards, '-show_streams', '-show_format', '-show_packets', '-read_intervals', `%+${LOOK_S}`,
      '-show_entries', 'packet=stream_index,pts_time,flags:format=format_name,duration:stream=index,codec_type,codec_name,pix_fmt,width,height,avg_frame_rate,channels,sample_rate:stream_disposition=attached_pic',
      '-of', 'json', path], { seconds: 60, signal })
    return translate(JSON.parse(out))
  } catch (error) {
    if (error instanceof MediaToolError) return null
    throw error
  }
}

function translate(raw: { streams?: (RawStream & { index: number })[], format?: { format_name?: string, duration?: string }, packets?: { stream_index: number, pts_time?: string, flags: string }[] }): Probe {
  const ofType = (type: string) => (raw.streams ?? []).filter((s) => s.codec_type === type)
  return {
    container: raw.format?.format_name ?? '',
    duration: Number(raw.format?.duration ?? 0) || 0,
    video: ofType('video').map((s, index) => ({
      index, codec: s.codec_name ?? '', pixelFormat: s.pix_fmt ?? '', width: s.width ?? 0, height: s.height ?? 0, rate: ratio(s.avg_frame_rate),
      keyframeGap: gapOf((raw.packets ?? []).filter((p) => p.stream_index === s.index)), still: s.disposition?.attached_pic === 1,
    })),
    audio: ofType('audio').map((s, index) => ({ index, codec: s.codec_name ?? '', channels: s.channels ?? 0, sampleRate: Number(s.sample_rate ?? 0) })),
  }
}

const ratio = (text = '0/1') => {
  const [a = 0, b = 1] = text.split('/').map(Number)
  return b ? a / b : 0
}

/** Largest distance between key frames among the packets read, their end counted as one. */
function gapOf(packets: { pts_time?: string, flags: string }[]): number | null {
  const times = packets.map((p) => Number(p.pts_time)).filter(Number.isFinite)
  if (times.length < 2) return null
  const keys = packets.filter((p) => p.flags.startsWith('K')).map((p) => Number(p.pts_time))
  const marks = [...keys, Math.max(...times)]
  return marks.slice(1).reduce((gap, t, i) => Math.max(gap, t - marks[i]!), 0)
}

/** Bytes that the file's own boxes speak of and that are not there. */
export async function missingIn(path: string): Promise<{ bytes: number, missing: number }> {
  const file = await openRanges(path)
  try {
    const boxes = file.size ? await readBoxes(file.read, file.size) : undefined
    return { bytes: file.size, missing: boxes ? missingBytes(boxes) : 0 }
  } finally {
    await file.close()
  }
}
