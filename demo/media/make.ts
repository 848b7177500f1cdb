/**
 * Makes the media of the demo once and keeps it: four short lectures with slides, a lecturer and
 * speech for the recorders, and of each one a recording of about fifty minutes for the library.
 */
import { execFile } from 'node:child_process'
import { existsSync } from 'node:fs'
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { planStreams } from '~~/core/media/plan'
import { probeFile } from '~~/server/adapters/ffmpeg/probe'
import { makePoster, makeStream, soundLevel } from '~~/server/adapters/ffmpeg/streams'
import { pathOf } from '~~/server/adapters/store'
import type { SoundLevel } from '~~/shared/library/views'
import { decks, type Deck } from './decks'
import { lecturerSvg, slideSvg } from './draw'

const exec = promisify(execFile)
const ffmpeg = (...args: string[]) => exec('ffmpeg', ['-loglevel', 'error', '-nostdin', '-y', ...args], { maxBuffer: 1e8 })

/** One prepared recording in the store. */
export interface PreparedRecording { deck: string, prefix: string, seconds: number, level: SoundLevel }

const LOOP_FRAMES = 48
const PAUSE_S = 0.9

/**
 * @param folder where the short lectures and `index.json` for the recorders go
 * @param longSeconds length of the shortest of the recordings for the library
 */
export async function makeDemoMedia(folder: string, longSeconds: number, say: (text: string) => void): Promise<PreparedRecording[]> {
  const done = join(folder, 'prepared.json')
  if (existsSync(done)) return JSON.parse(await readFile(done, 'utf8')) as PreparedRecording[]
  await mkdir(folder, { recursive: true })
  const make = async (deck: Deck, i: number) => {
    say(`Making the lecture “${deck.title}” (${i + 1} of ${decks.length})`)
    const file = join(folder, `${deck.name}.mp4`)
    if (!existsSync(file)) await makeLecture(deck, folder, file)
    const recording = await makeLong(deck, folder, file, longSeconds + i * 47)
    return { recording, line: { file: `${deck.name}.mp4`, match: deck.match, levels: await perSecond(file) } }
  }
  // Two at a time: one alone leaves a core idle while it speaks and draws.
  const halves = await Promise.all([0, 1].map(async (half) => {
    const made: { i: number, result: Awaited<ReturnType<typeof make>> }[] = []
    for (const [i, deck] of decks.entries()) if (i % 2 === half) made.push({ i, result: await make(deck, i) })
    return made
  }))
  const all = halves.flat().sort((a, b) => a.i - b.i).map((m) => m.result)
  const prepared = all.map((m) => m.recording)
  const index = all.map((m) => m.line)
  await writeFile(join(folder, 'index.json'), JSON.stringify(index))
  await writeFile(`${done}.new`, JSON.stringify(prepared))
  await rename(`${done}.new`, done)
  return prepared
}

async function png(svg: string, file: string): Promise<void> {
  await writeFile(`${file}.svg`, svg)
  await exec('rsvg-convert', ['-o', file, `${file}.svg`])
}

/** Slides as long as what is said beside them, the lecturer in a loop, one fragment a second. */
async function makeLecture(deck: Deck, folder: string, file: string): Promise<void> {
  const work = join(folder, `${deck.name}.work`)
  await rm(work, { recursive: true, force: true })
  await mkdir(work, { recursive: true })
  const list: string[] = []
  const sounds: string[] = []
  for (const [i, slide] of deck.slides.entries()) {
    const name = join(work, `slide${i}`)
    await png(slideSvg(deck, slide, i + 1), `${name}.png`)
    await writeFile(`${name}.txt`, [slide.title, ...slide.lines, slide.said].join('. ').replace(/[’·=/()]/g, ' '))
    await ffmpeg('-f', 'lavfi', '-i', `flite=textfile=${name}.txt:voice=${deck.voice}`, '-af', `aresample=32000,apad=pad_dur=${PAUSE_S}`, '-ac', '1', `${name}.wav`)
    const { stdout } = await exec('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', `${name}.wav`])
    list.push(`file '${name}.png'\nduration ${Number(stdout).toFixed(2)}`)
    sounds.push(`file '${name}.wav'`)
  }
  for (let f = 0; f < LOOP_FRAMES; f++) await png(lecturerSvg(deck, f / LOOP_FRAMES), join(work, `cam${String(f).padStart(3, '0')}.png`))
  await writeFile(join(work, 'slides.txt'), list.join('\n'))
  await writeFile(join(work, 'sounds.txt'), sounds.join('\n'))
  await ffmpeg('-f', 'concat', '-safe', '0', '-i', join(work, 'sounds.txt'), '-c', 'copy', join(work, 'speech.wav'))
  const { stdout } = await exec('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', join(work, 'speech.wav')])
  // Whole multiples of four seconds: 20 pictures and 125 sound frames fit exactly, so rounds join without a seam.
  const seconds = String(Math.ceil(Number(stdout) / 4) * 4)
  await ffmpeg('-f', 'concat', '-safe', '0', '-i', join(work, 'slides.txt'), '-stream_loop', '-1', '-framerate', '10', '-i', join(work, 'cam%03d.png'), '-i', join(work, 'speech.wav'),
    '-filter_complex', '[0:v]format=yuv420p,fps=5,tpad=stop=-1:stop_mode=clone[s];[1:v]format=yuv420p[c];[2:a]apad[a]', '-map', '[s]', '-map', '[c]', '-map', '[a]', '-t', seconds,
    '-c:v', 'libx264', '-preset', 'ultrafast', '-tune', 'stillimage', '-crf', '28', '-g:v:0', '10', '-g:v:1', '20', '-c:a', 'aac', '-b:a', '56k',
    '-movflags', 'empty_moov+default_base_moof', '-frag_duration', '1000000', '-f', 'mp4', `${file}.part`)
  await rename(`${file}.part`, file)
  await rm(work, { recursive: true })
}

/** The lecture over and over until it is as long as a lecture is, made by the very code of the worker. */
async function makeLong(deck: Deck, folder: string, file: string, seconds: number): Promise<PreparedRecording> {
  const prefix = `media/demo-${deck.name}`
  const source = join(folder, `${deck.name}.long.mp4`)
  await ffmpeg('-stream_loop', '-1', '-i', file, '-map', '0', '-c', 'copy', '-t', String(seconds), '-f', 'mp4', source)
  const probe = (await probeFile(source))!
  await mkdir(pathOf(prefix), { recursive: true })
  const streams = planStreams(probe)
  const length = Math.max(...await Promise.all(streams.map((plan) => makeStream(source, plan, pathOf(prefix, plan.role), { length: seconds }))))
  const [level] = await Promise.all([soundLevel(source, { length: seconds }), makePoster(source, streams[0]!.video!, 40, pathOf(prefix, 'poster.jpg'))])
  await writeFile(pathOf(prefix, 'level.json'), JSON.stringify(level))
  await rm(source)
  return { deck: deck.name, prefix, seconds: length, level }
}

async function perSecond(file: string): Promise<number[]> {
  const seconds = Math.round((await probeFile(file))!.duration)
  const { shape } = await soundLevel(file, { length: seconds })
  return Array.from({ length: seconds }, (_, s) => Math.round(shape[Math.floor(s / seconds * shape.length)]! * 10) / 10)
}
