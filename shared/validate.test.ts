import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { PlanCapture } from './timetable/plan-capture'
import { RecorderReport } from './capture/report'
import { WatchProgress } from './watch/progress'
import { check } from './validate'

const uuid = '7d444840-9dc0-41d1-9b2f-5ae3c5d0a001'
const plan = { sectionId: uuid, roomId: uuid, date: '2026-11-11', start: '10:00', minutes: 50, presenterId: uuid, inputs: ['sound'], topic: '' }
const errorsOf = async (data: object) => {
  const found = await check(PlanCapture, data)
  return 'errors' in found ? found.errors : {}
}

describe('planning one capture', () => {
  it('passes a whole plan and fills an instance', async () => {
    expect(await check(PlanCapture, plan)).toMatchObject({ value: plan })
  })

  it.each([
    ['sectionId', { sectionId: '' }], ['date', { date: '2026-13-01' }], ['start', { start: '24:00' }], ['minutes', { minutes: 1 }],
    ['minutes', { minutes: 50.5 }], ['inputs', { inputs: [] }], ['inputs', { inputs: ['x-ray'] }], ['topic', { topic: 'x'.repeat(161) }],
    ['unknown', { unknown: 1 }],
  ])('names the field %s', async (field, change) => {
    expect(Object.keys(await errorsOf({ ...plan, ...change }))).toEqual([field])
  })
})

it('answers with errors, never with a crash, whatever comes', async () => {
  for (const Class of [PlanCapture, RecorderReport, WatchProgress]) {
    await fc.assert(fc.asyncProperty(fc.anything(), async (data) => {
      const found = await check(Class as new () => object, data)
      expect('errors' in found || 'value' in found).toBe(true)
    }), { numRuns: 60 })
  }
})

it('takes no prototype from a body', async () => {
  const found = await check(PlanCapture, JSON.parse('{"__proto__": {"sectionId": "x"}}'))
  expect('errors' in found).toBe(true)
})

it('wants spans as pairs of seconds', async () => {
  expect(await check(WatchProgress, { positionS: 1, spans: [[0, 1]] })).toHaveProperty('value')
  for (const spans of [[[0]], [['a', 'b']], [[0, Infinity]], 'x']) expect(await check(WatchProgress, { positionS: 1, spans })).toHaveProperty('errors')
})
