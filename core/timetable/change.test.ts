import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { addDays, instantOf, wallOf, weekdayOf, type Term } from '../term/calendar'
import { changesOf, piecesOf, regrouped, type Change, type Planned } from './change'
import { keptDates, type Rule } from './rule'

const term: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-11', spans: [{ kind: 'reading', from: '2026-11-16', to: '2026-11-22', label: 'Reading' }] }
const rule: Rule = { weekdays: [1, 3], start: '10:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [] }
const captures = keptDates(rule, term).map((d): Planned => ({
  id: d.date, planDate: d.date, start: d.start, end: d.end, roomId: 'a', presenterId: 'p', inputs: ['sound'], title: '', state: 'planned', own: [],
}))
const now = instantOf(term.zone, '2026-10-26', '12:00')
const at = (date: string) => captures.find((c) => c.planDate === date)!
const change = (scope: 'one' | 'later' | 'all', what: Change, weekdayOnly = false, all = captures) => changesOf(all, all.find((c) => c.planDate === '2026-11-04')!, scope, what, term, now, weekdayOnly)

describe('a change', () => {
  it('to one capture touches that one and marks what was changed by hand', () => {
    const { changed } = change('one', { start: '14:00', days: 1 })
    expect(changed).toHaveLength(1)
    expect(wallOf(term.zone, changed[0]!.after.start)).toMatchObject({ date: '2026-11-05', time: '14:00' })
    expect(changed[0]!.after).toMatchObject({ planDate: '2026-11-04', own: ['date', 'start'] })
  })

  it('to this and later leaves earlier ones, to all leaves those that have begun', () => {
    expect(change('later', { roomId: 'b' }).changed[0]!.before.planDate).toBe('2026-11-04')
    const { changed, untouched } = change('all', { roomId: 'b' })
    expect(changed[0]!.before.planDate).toBe('2026-10-28')
    expect(untouched.map((c) => c.planDate)).toEqual(['2026-10-05', '2026-10-07', '2026-10-12', '2026-10-14', '2026-10-19', '2026-10-21', '2026-10-26'])
  })

  it('keeps the wall time on both sides of the clock change', () => {
    for (const { after } of changesOf(captures, at('2026-10-19'), 'all', { start: '11:15' }, term, 0).changed) expect(wallOf(term.zone, after.start).time).toBe('11:15')
  })

  it('lets what was changed by hand stay, and says so', () => {
    const byHand = captures.map((c) => (c.planDate === '2026-11-09' ? { ...c, roomId: 'z', own: ['room' as const] } : c))
    const { changed } = change('later', { roomId: 'b', start: '11:00' }, false, byHand)
    expect(changed.find((c) => c.before.planDate === '2026-11-09')).toMatchObject({ keeps: ['room'], after: { roomId: 'z' } })
  })

  it('may concern one weekday of several', () => {
    expect(change('later', { days: 1 }, true).changed.every((c) => weekdayOf(c.before.planDate) === 3 && weekdayOf(c.after.planDate) === 4)).toBe(true)
  })

  it('that changes nothing concerns nothing', () => {
    expect(change('all', { start: '10:00', roomId: 'a' }).changed).toEqual([])
  })
})

describe('plans after a change', () => {
  const facts = { start: '10:00', minutes: 50, roomId: 'a', presenterId: 'p', inputs: ['sound'], title: '' }

  it('hold every date once, under the old facts or the new', () => {
    fc.assert(fc.property(fc.array(fc.boolean(), { minLength: 20, maxLength: 20 }), fc.integer({ min: -2, max: 2 }), (mask, days) => {
      const dates = captures.map((c) => c.planDate)
      const staying = dates.filter((_, i) => mask[i % 20])
      const going = dates.filter((_, i) => !mask[i % 20]).map((d) => addDays(d, days))
      const { stay, go } = regrouped(facts, { roomId: 'b' }, staying, going, term)
      for (const [pieces, meant] of [[stay, staying], [go, going]] as const) {
        expect(pieces.flatMap((p) => p.dates).sort()).toEqual([...meant].sort())
        for (const p of pieces) expect(keptDates(p.rule, term).map((d) => d.date)).toEqual([...p.dates].sort())
      }
      expect(go.every((p) => p.facts.roomId === 'b')).toBe(true)
    }))
  })

  it('stay one plan where one rule is enough', () => {
    const { stay, go } = regrouped(facts, { start: '11:00' }, captures.slice(0, 7).map((c) => c.planDate), captures.slice(7).map((c) => c.planDate), term)
    expect([stay.length, go.length]).toEqual([1, 1])
    expect(stay[0]!.rule.until).toEqual({ kind: 'date', date: '2026-10-26' })
    expect(go[0]!.rule).toMatchObject({ from: '2026-10-28', until: { kind: 'teaching' }, start: '11:00' })
    expect(piecesOf(facts, ['2026-11-18'], term)[0]!.rule.weeks).toEqual({ kind: 'dates', dates: ['2026-11-18'] })
  })
})
