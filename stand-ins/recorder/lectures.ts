/** What happens in the simulated rooms: prepared lectures, of which each event shows one. */
import { execFileSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import { Lecture } from './fragments'

/** A line of `index.json` beside the files; `levels` is the loudness of each second, LUFS. */
interface Prepared { file: string, match: string[], levels: number[] }

export interface Show { lecture: Lecture, levels: number[] }

const pictures: Record<string, number> = { 'lectern screen': 0, 'document camera': 0, 'room camera': 1 }
const shown = new Map<string, Show>()

/**
 * The lecture for an event: the one whose words its summary begins with, else any, always the same
 * for the same summary. Only what is asked for is in it.
 */
export function showFor(folder: string, work: string, summary: string, inputs: string[]): Show {
  const index = JSON.parse(readFileSync(join(folder, 'index.json'), 'utf8')) as Prepared[]
  const hash = [...summary].reduce((h, c) => (h * 31 + c.charCodeAt(0)) >>> 0, 7)
  const prepared = index.find((p) => p.match.some((word) => summary.startsWith(word))) ?? index[hash % index.length]!
  const tracks = [...new Set(inputs.flatMap((i) => (i in pictures ? [`0:v:${pictures[i]}`] : i === 'sound' ? ['0:a:0'] : [])))].sort()
  const name = `${prepared.file}.${tracks.join('+').replace(/[^a-z0-9+]/g, '')}`
  const known = shown.get(name)
  if (known) return known
  const show = { lecture: new Lecture(readFileSync(only(join(folder, prepared.file), tracks, work, name))), levels: inputs.includes('sound') ? prepared.levels : [] }
  shown.set(name, show)
  return show
}

/** A copy of the lecture with the given tracks alone. */
function only(source: string, tracks: string[], work: string, name: string): string {
  mkdirSync(work, { recursive: true })
  const file = join(work, `${name}.mp4`)
  if (existsSync(file)) return file
  execFileSync('ffmpeg', ['-loglevel', 'error', '-nostdin', '-y', '-i', source, ...tracks.flatMap((t) => ['-map', t]), '-c', 'copy',
    '-movflags', 'empty_moov+default_base_moof', '-frag_duration', '1000000', '-f', 'mp4', `${file}.part`])
  renameSync(`${file}.part`, file)
  return file
}
