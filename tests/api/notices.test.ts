import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wallOf } from '~~/core/term/calendar'
import type { NoticeView } from '~~/shared/notices/views'
import type { Edited, PlanChoices } from '~~/shared/timetable/views'
import { campusNow, closeSql, mailsOf, sql, until } from '../support/house'
import { people, PersonClient } from '../support/person'

let staff: PersonClient
let instructor: PersonClient
let wish: object
const mails = () => mailsOf(people.otherInstructor)
/** longer than mail about a change waits here */
const aWhile = () => new Promise((r) => setTimeout(r, 7000))

beforeAll(async () => {
  staff = await PersonClient.signIn(people.staff)
  instructor = await PersonClient.signIn(people.otherInstructor)
  const { data: choices } = await staff.api<PlanChoices>('GET', '/api/plans/choices')
  const section = choices.sections.find((s) => s.code === 'LIM-230/01')!
  const date = wallOf('Europe/London', await campusNow() + 4 * 86_400_000).date
  wish = { sectionId: section.id, roomId: choices.rooms.find((r) => r.name === 'Kiln Room')!.id, presenterId: section.presenterIds[0], inputs: ['sound'], title: '', start: '20:00', minutes: 30, repeat: 'once', date }
})
afterAll(closeSql)

describe('notices', () => {
  it('confirm a plan at once, in the application and by mail, with one address for everybody', async () => {
    const { data } = await staff.api<Edited & { captureId: string }>('POST', '/api/plans', wish)
    const mail = await until('the mail', async () => (await mails()).find((m) => m.subject.includes('capture planned')))
    expect(mail.text).toContain(`/go/capture/${data.captureId}`)
    const { data: told } = await instructor.api<NoticeView[]>('GET', '/api/notices')
    expect(told[0]).toMatchObject({ kind: 'planned', read: false, path: `/go/capture/${data.captureId}` })
    await instructor.api('POST', `/api/notices/${told[0]!.id}/read`)
    expect((await instructor.api<{ unread: number }>('GET', '/api/notices/unread')).data.unread).toBe(0)
  })

  it('of a change wait: undone meanwhile, nobody hears of it; later, one message and one correction', async () => {
    const [capture] = await sql<{ id: string }>(`SELECT c.id FROM captures c JOIN rooms r ON r.id = c.room_id WHERE r.name = 'Kiln Room' AND c.ends_at - c.starts_at = interval '30 minutes' ORDER BY c.starts_at DESC LIMIT 1`)
    const change = async (start: string) => (await staff.api<Edited>('POST', `/api/captures/${capture!.id}/change`, { start })).data.editId
    const before = (await mails()).length
    const first = await change('20:05')
    expect((await staff.api('POST', `/api/edits/${first}/undo`)).status).toBe(200)
    await aWhile()
    expect(await mails()).toHaveLength(before)
    const second = await change('20:10')
    await until('the mail about the change', async () => (await mails()).length === before + 1)
    expect((await mails())[0]).toMatchObject({ subject: expect.stringContaining('capture changed'), text: expect.stringContaining('20:10') })
    expect((await staff.api('POST', `/api/edits/${second}/undo`)).status).toBe(200)
    const correction = await until('the correction', async () => (await mails()).length === before + 2 && (await mails())[0])
    expect(correction.subject).toContain('Taken back')
  })

  it('come the way each person chooses', async () => {
    const choices = ['planned', 'changed'].map((kind) => ({ kind, inApp: true, byMail: false }))
    expect((await instructor.api('PUT', '/api/notices/choices', { choices })).status).toBe(200)
    expect((await instructor.api('PUT', '/api/notices/choices', { choices: [{ kind: 'weather', inApp: true, byMail: true }] })).status).toBe(422)
    const before = (await mails()).length
    await staff.api('POST', '/api/plans', { ...wish, start: '21:30' })
    await until('the notice', async () => (await instructor.api<{ unread: number }>('GET', '/api/notices/unread')).data.unread > 0)
    await aWhile()
    expect(await mails()).toHaveLength(before)
    await instructor.api('PUT', '/api/notices/choices', { choices: choices.map((c) => ({ ...c, byMail: true })) })
  })
})
