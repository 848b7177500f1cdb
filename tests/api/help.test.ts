import { afterAll, describe, expect, it } from 'vitest'
import type { MessageView } from '~~/shared/help/messages'
import { closeSql, mailsOf, until } from '../support/house'
import { people, PersonClient } from '../support/person'

afterAll(closeSql)

describe('a message to the team', () => {
  it('carries where its writer was, is answered once, and the answer comes back by mail', async () => {
    const student = await PersonClient.signIn(people.student)
    const staff = await PersonClient.signIn(people.staff)
    expect((await student.api('POST', '/api/messages', { body: 'The sound is low.', path: '/watch/abc?x=1' })).status).toBe(201)
    const { data } = await staff.api<MessageView[]>('GET', '/api/messages')
    expect(data[0]).toMatchObject({ who: 'Linnea Ashdown', path: '/watch/abc?x=1', answer: null })
    expect((await student.api('POST', `/api/messages/${data[0]!.id}/answer`, { answer: 'Myself.' })).status).toBe(404)
    expect((await staff.api('POST', `/api/messages/${data[0]!.id}/answer`, { answer: 'We have made it louder.' })).status).toBe(200)
    expect((await staff.api('POST', `/api/messages/${data[0]!.id}/answer`, { answer: 'Again.' })).status).toBe(409)
    await until('the answer', async () => (await mailsOf(people.student)).some((m) => m.text.includes('We have made it louder.')))
    const other = await PersonClient.signIn(people.instructor)
    expect((await other.api<MessageView[]>('GET', '/api/messages')).data.filter((m) => !m.mine)).toEqual([])
  })

  it.each(['https://elsewhere.example/', '//elsewhere.example', 'javascript:alert(1)', '/a b'])('names no address elsewhere: %s', async (path) => {
    const student = await PersonClient.signIn(people.student)
    expect((await student.api('POST', '/api/messages', { body: 'Look at this.', path })).status).toBe(422)
  })
})
