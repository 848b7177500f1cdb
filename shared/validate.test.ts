import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { PlanCaptures } from './timetable/plan-captures'
import { ChangeCaptures } from './timetable/change-captures'
import { RecorderReport } from './capture/report'
import { WatchProgress } from './watch/progress'
import { check } from './validate'

const uuid = '7d444840-9dc0-41d1-9b2f-5ae3c5d0a001'
const plan = { sectionId: uuid, roomId: uuid, date: '2026-11-11', start: '10:00', minutes: 50, presenterId: uuid, inputs: ['sound'], title: '' }
const rule = { ...plan, repeat: 'every', weekdays: [3] }
const errorsOf = async (data: object) => {
  const found = await check(PlanCaptures, data)
  return 'errors' in found ? found.errors : {}
}

describe('planning captures', () => {
  it('passes a whole plan and fills an instance', async () => {
    expect(await check(PlanCaptures, plan)).toMatchObject({ value: plan })
  })

  it('asks a rule for nothing that only a single date has, and the other way round', async () => {
    expect(await errorsOf({ ...rule, date: '' })).toEqual({})
    expect(await errorsOf({ ...plan, weekdays: [], from: '' })).toEqual({})
  })

  it.each([
    ['sectionId', { sectionId: '' }], ['date', { date: '2026-13-01' }], ['start', { start: '24:00' }], ['minutes', { minutes: 1 }],
    ['minutes', { minutes: 50.5 }], ['inputs', { inputs: [] }], ['inputs', { inputs: ['x-ray'] }], ['title', { title: 'x'.repeat(161) }],
    ['unknown', { unknown: 1 }], ['repeat', { repeat: 'daily', weekdays: [1] }], ['weekdays', { repeat: 'every' }], ['weekdays', { ...rule, weekdays: [8] }], ['weekNumbers', { ...rule, repeat: 'chosen' }],
    ['from', { ...rule, from: 'soon' }], ['untilDate', { ...rule, until: 'date' }], ['count', { ...rule, until: 'count', count: 0 }], ['leftOut', { leftOut: ['x'] }],
    ['exceptions', { exceptions: { '2026-11-11': { colour: 'red' } } }], ['exceptions', { exceptions: [] }], ['told', { told: ['everybody'] }],
  ])('names the field %s', async (field, change) => {
    expect(Object.keys(await errorsOf({ ...plan, ...change }))).toEqual([field])
  })
})

describe('a change', () => {
  it('names only what is to be different', async () => {
    expect(await check(ChangeCaptures, { scope: 'later', start: '11:00' })).toMatchObject({ value: { scope: 'later', start: '11:00' } })
    expect(await check(ChangeCaptures, { scope: 'some' })).toHaveProperty('errors.scope')
    expect(await check(ChangeCaptures, { inputs: [] })).toHaveProperty('errors.inputs')
  })
})

it('answers with errors, never with a crash, whatever comes', async () => {
  for (const Class of [PlanCaptures, ChangeCaptures, RecorderReport, WatchProgress]) {
    await fc.assert(fc.asyncProperty(fc.anything(), async (data) => {
      const found = await check(Class as new () => object, data)
      expect('errors' in found || 'value' in found).toBe(true)
    }), { numRuns: 60 })
  }
})

it('takes no prototype from a body', async () => {
  const found = await check(PlanCaptures, JSON.parse('{"__proto__": {"sectionId": "x"}}'))
  expect('errors' in found).toBe(true)
})

it('wants spans as pairs of seconds', async () => {
  expect(await check(WatchProgress, { positionS: 1, spans: [[0, 1]] })).toHaveProperty('value')
  for (const spans of [[[0]], [['a', 'b']], [[0, Infinity]], 'x']) expect(await check(WatchProgress, { positionS: 1, spans })).toHaveProperty('errors')
})
