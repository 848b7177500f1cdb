/** How streams are made from a probed file: which pictures are copied, which encoded anew, and how. */
import type { Probe, VideoTrack } from './probe'

export interface StreamPlan {
  /** what the picture shows; a lone picture is the `screen` */
  role: 'screen' | 'camera'
  /** index among the file's video tracks; null for sound alone */
  video: number | null
  /** index among the file's audio tracks; null for a silent stream */
  audio: number | null
  copyVideo: boolean
  copyAudio: boolean
  /** height to encode to when not copied */
  height: number
  width: number
}

/** Segments are four seconds, so key frames farther apart would make them uneven. */
const MOST_KEYFRAME_GAP = 5
const MOST_HEIGHT = 1080

/** True when players everywhere show this picture as it is. */
export function mayCopyVideo(track: VideoTrack): boolean {
  return track.codec === 'h264' && (track.pixelFormat === 'yuv420p' || track.pixelFormat === 'yuvj420p')
    && track.height <= MOST_HEIGHT && track.width <= 1920
    && track.keyframeGap !== null && track.keyframeGap <= MOST_KEYFRAME_GAP
}

/**
 * The streams of a recording: the screen with the sound, and the camera without when there is one.
 * Of two pictures the larger is the screen; equal ones keep the order of the file.
 */
export function planStreams(probe: Probe): StreamPlan[] {
  const pictures = probe.video.filter((v) => !v.still)
    .sort((a, b) => b.width * b.height - a.width * a.height || a.index - b.index)
    .slice(0, 2)
  const sound = probe.audio[0]
  const audio = sound ? sound.index : null
  const copyAudio = sound?.codec === 'aac' && sound.channels <= 2
  if (!pictures.length) return [{ role: 'screen', video: null, audio, copyVideo: false, copyAudio, height: 0, width: 0 }]
  return pictures.map((track, i) => ({
    role: i === 0 ? 'screen' : 'camera',
    video: track.index,
    audio: i === 0 ? audio : null,
    copyVideo: mayCopyVideo(track),
    copyAudio,
    ...fitted(track),
  }))
}

/** The size to encode to: at most 1280 x 720, even numbers, never enlarged. */
function fitted(track: VideoTrack): { width: number, height: number } {
  const scale = Math.min(1, 1280 / track.width, 720 / track.height)
  const even = (n: number) => Math.max(2, 2 * Math.round(n * scale / 2))
  return { width: even(track.width), height: even(track.height) }
}
