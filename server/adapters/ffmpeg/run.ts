/**
 * ffmpeg and ffprobe as child processes under limits. What somebody sent is opened with a list of
 * allowed containers and from plain files only: otherwise a playlist renamed .mp4 would show frames
 * of other files on this machine.
 */
import { spawn } from 'node:child_process'

/** Containers that are opened, by the names of their demuxers. */
const CONTAINERS = 'mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mpegts,avi,flac,wav,ogg'

/** Goes before `-i` for every file that was sent in. */
export const guards = ['-format_whitelist', CONTAINERS, '-protocol_whitelist', 'file', '-max_pixels', String(8192 * 4320)]

const MEMORY_BYTES = 4 * 1024 ** 3

export interface RunOptions {
  signal?: AbortSignal
  /** real seconds after which it is ended */
  seconds: number
  /** largest file it may write */
  mostBytes?: number
  /** called with each line of standard output */
  onLine?: (line: string) => void
  /** keep standard error to the end instead of its tail */
  wholeError?: boolean
}

export class MediaToolError extends Error {}

/**
 * Runs a program to its end.
 * @returns standard output (empty when `onLine` takes it) and standard error
 * @throws MediaToolError with the end of standard error; AbortError when `signal` fires
 */
export function run(program: 'ffmpeg' | 'ffprobe', args: string[], options: RunOptions): Promise<{ out: string, err: string }> {
  return new Promise((resolve, reject) => {
    const limits = [`--as=${MEMORY_BYTES}`, `--fsize=${options.mostBytes ?? 64 * 1024 ** 3}`, '--core=0']
    const child = spawn('prlimit', [...limits, '--', 'nice', '-n', '10', program, '-hide_banner', '-loglevel', 'error', ...args], {
      stdio: ['ignore', 'pipe', 'pipe'], signal: options.signal, killSignal: 'SIGKILL', timeout: Math.ceil(options.seconds * 1000),
    })
    let out = ''
    let err = ''
    let rest = ''
    child.stdout.setEncoding('utf8').on('data', (text: string) => {
      if (!options.onLine) {
        if (out.length < 64e6) out += text
        return
      }
      const lines = (rest + text).split('\n')
      rest = lines.pop()!
      lines.forEach(options.onLine)
    })
    child.stderr.setEncoding('utf8').on('data', (text: string) => {
      err = options.wholeError ? err + text : (err + text).slice(-4000)
    })
    child.once('error', reject)
    child.once('close', (code, signal) => {
      if (options.signal?.aborted) return
      if (code === 0) resolve({ out, err })
      else reject(new MediaToolError(`${program} ended with ${signal ?? code}: ${err.trim().split('\n').slice(-3).join(' | ')}`))
    })
  })
}
