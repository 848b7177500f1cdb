/**
 * What a probe of a file says, and whether the file can become a recording. Knows nothing of any
 * program: the adapter translates its output into {@link Probe}.
 */
export interface VideoTrack {
  /** position among the file's video tracks, from 0 */
  index: number
  codec: string
  pixelFormat: string
  width: number
  height: number
  /** frames a second; 0 when unknown */
  rate: number
  /** largest distance between two key frames, seconds; null when not measured */
  keyframeGap: number | null
  /** a cover picture rather than a moving one */
  still: boolean
}

export interface AudioTrack { index: number, codec: string, channels: number, sampleRate: number }

export interface Probe {
  /** container names, such as `matroska,webm` */
  container: string
  /** seconds; 0 when the container does not say */
  duration: number
  video: VideoTrack[]
  audio: AudioTrack[]
}

/** A reason not to make a recording, with the sentence that people read. */
export interface Refusal { code: 'empty' | 'not-media' | 'truncated' | 'too-large-picture' | 'no-tracks', sentence: string }

/** Pictures beyond this many pixels are refused: decoding one would take the machine's memory. */
export const MOST_PIXELS = 8192 * 4320

/**
 * Why a probed file is refused, or undefined when it is fit for making.
 * @param probe null when the file could not be read as media at all
 * @param missing bytes that the file's own index speaks of and that are not there
 */
export function refusalOf(bytes: number, probe: Probe | null, missing: number): Refusal | undefined {
  if (bytes === 0) return { code: 'empty', sentence: 'The file is empty: nothing arrived but its name. Send it again from where it was recorded.' }
  if (missing > 0) {
    return { code: 'truncated', sentence: `The file stops early: ${words(missing)} of it are missing, so its end cannot be played. Send it again; the copy it came from is probably whole.` }
  }
  if (!probe) return { code: 'not-media', sentence: 'This is not a video or sound file, whatever its name says. Nothing was made of it; the file is kept for you to look at.' }
  const moving = probe.video.filter((v) => !v.still)
  if (moving.some((v) => v.width * v.height > MOST_PIXELS)) {
    return { code: 'too-large-picture', sentence: 'Its picture is larger than 8192 × 4320, which no player here can show. Export it at 1920 × 1080 or less and send that.' }
  }
  if (moving.some((v) => !v.width || !v.height) || (!moving.length && !probe.audio.length)) {
    return { code: 'no-tracks', sentence: 'There is neither a moving picture nor sound in this file that could be read. Check that it plays where it was recorded.' }
  }
  return undefined
}

function words(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(1)} GB`
  return bytes >= 1e6 ? `${Math.round(bytes / 1e6)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`
}
