import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { WatchView } from '~~/shared/watch/watch'
import { closeSql, kill, origin, secondOrigin, sql, start, until } from '../support/house'
import { listenLive } from '../support/listen'
import { people, PersonClient } from '../support/person'

beforeAll(() => start('web2'))
afterAll(async () => {
  await kill('web2')
  await closeSql()
})

describe('two web processes over one database', () => {
  it('know the same sessions, and end them together', async () => {
    const person = await PersonClient.signIn(people.student)
    expect((await person.fetch(`${secondOrigin}/api/me`)).status).toBe(200)
    await person.api('POST', '/api/auth/sign-out')
    expect((await person.fetch(`${secondOrigin}/api/me`)).status).toBe(401)
  })

  it('tell each other’s listeners, and a recording held at one is held at the other at once', async () => {
    const [teacher, student] = await Promise.all([people.instructor, people.student].map(PersonClient.signIn)) as [PersonClient, PersonClient]
    const [row] = await sql<{ id: string, filing: string }>(`
      SELECT r.id, f.id AS filing FROM recordings r JOIN filings f ON f.recording_id = r.id JOIN folders d ON d.id = f.folder_id JOIN sections s ON s.id = d.section_id JOIN courses c ON c.id = s.course_id
      WHERE c.code = 'HYD-210' AND s.number = '01' AND r.state = 'ready' AND r.store_prefix LIKE 'media/demo%' ORDER BY f.position OFFSET 1 LIMIT 1`)
    const { heard, hangUp } = await listenLive(teacher, `${secondOrigin}/api/live`)
    await until('the greeting', async () => heard.some((e) => e.topic === 'hello'))
    await teacher.api('POST', `/api/recordings/${row!.id}/release`, { filingId: row!.filing })
    await until('the news at the second', async () => heard.some((e) => e.topic === 'recording' && e.id === row!.id))
    const view = await (await student.fetch(`${secondOrigin}/api/recordings/${row!.id}/watch`)).json() as WatchView
    const poster = `${view.grant!.base}/poster.jpg`
    expect((await fetch(secondOrigin + poster)).status).toBe(200)
    expect((await fetch(origin + poster)).status).toBe(200)
    await teacher.api('POST', `/api/recordings/${row!.id}/hold`, { filingId: row!.filing })
    await until('the second to refuse', async () => (await fetch(secondOrigin + poster)).status === 403, 1)
    await hangUp()
  })
})
