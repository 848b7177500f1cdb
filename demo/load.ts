/**
 * Loads the demo: media (made once), class data, a term's captures in every state around the campus
 * clock's now, recordings in section folders, releases, placements, viewings; and the files that the
 * stand-ins begin with. `npm start` runs it once for each new database.
 */
import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { database } from '../server/models/database'
import { migrate } from '../server/models/migrate'
import { Person } from '../server/models/person'
import { college, courses, instructors, rooms, staff, stranger, students } from './college'
import { loadCampus } from './load-campus'
import { loadTerm } from './load-term'
import { makeDemoMedia } from './media/make'
import { opening, termAround } from './timetable'

const setting = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set`)
  return value
}
const say = (text: string) => console.log(text)

// A failing statement of the loader carries thousands of rows; its message says enough.
process.once('uncaughtException', (error) => {
  console.error(`${error.name}: ${error.message.slice(0, 600)} ${String((error as { parent?: Error }).parent?.message ?? '').slice(0, 300)}`)
  process.exit(1)
})

const folder = setting('DEMO_DIR')
await mkdir(folder, { recursive: true })
const media = await makeDemoMedia(setting('LECTURES_DIR'), Number(process.env.DEMO_LECTURE_SECONDS ?? 2880), say)
await migrate()
if (await Person.count() === 0) {
  say(`Loading ${college}: ${rooms.length} rooms, ${courses.reduce((n, c) => n + c[2].length, 0)} sections, 900 students`)
  const { today, instant } = opening(Date.now())
  const people = [...staff, ...instructors, ...students()]
  const term = termAround(today)
  const { recorders, loaded } = await database.transaction(async (transaction) => {
    const campus = await loadCampus(term, people, transaction)
    return { recorders: campus.recorders, loaded: await loadTerm(campus, term, instant, media, setting('PUBLIC_ORIGIN'), setting('COURSE_ORIGIN'), transaction) }
  })
  await database.query('ANALYZE')
  await writeFile(join(folder, 'people.json'), JSON.stringify([...people, stranger].map(({ sub, name, email, note }) => ({ sub, name, email, note }))))
  await writeFile(join(folder, 'recorders.json'), JSON.stringify(recorders), { mode: 0o600 })
  await writeFile(join(folder, 'courses.json'), JSON.stringify(loaded.courseSite))
  await writeFile(join(folder, 'opening.json'), JSON.stringify({ instant }))
  say(`Loaded ${loaded.captures} captures, ${loaded.recordings} recordings, ${loaded.placements} placements, ${loaded.viewings} viewings`)
}
await database.close()
