import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { addDays, daysBetween, notTeaching, wallOf, weekdayOf, weeksOf, type Term } from '../term/calendar'
import { rulesFrom } from './from-dates'
import { recurrenceOf, rruleText } from './recurrence'
import { datesOf, keptDates, problemsOf, ruleWords, type Rule } from './rule'

const london: Term = {
  name: 'Autumn 2026', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2027-01-15',
  spans: [
    { kind: 'reading', from: '2026-11-16', to: '2026-11-22', label: 'Reading' },
    { kind: 'holiday', from: '2026-12-04', to: '2026-12-04', label: 'Founders’ day' },
    { kind: 'holiday', from: '2026-12-21', to: '2027-01-03', label: 'Winter break' },
    { kind: 'exams', from: '2027-01-18', to: '2027-01-29', label: 'Exams' },
  ],
}
// Teaching over both changes of the clocks there.
const auckland: Term = { name: 'Spring', zone: 'Pacific/Auckland', teachingFrom: '2026-08-31', teachingTo: '2027-04-30', spans: [{ kind: 'reading', from: '2026-12-14', to: '2027-01-17', label: 'Summer' }] }
const terms = [london, auckland]

const base: Rule = { weekdays: [3], start: '10:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [] }
const dates = (change: Partial<Rule>, term = london) => keptDates({ ...base, ...change }, term).map((d) => d.date)

describe('the dates of a rule', () => {
  it('runs to the end of teaching and says what is skipped and why', () => {
    const found = datesOf({ ...base, weekdays: [5], leftOut: ['2026-10-16'] }, london)
    expect(found.filter((d) => d.skipped).map((d) => `${d.date} ${d.skipped}`)).toEqual([
      '2026-10-16 left out', '2026-11-20 Reading', '2026-12-04 Founders’ day', '2026-12-25 Winter break', '2027-01-01 Winter break',
    ])
    expect(found.at(-1)).toMatchObject({ date: '2027-01-15', week: 14 })
  })

  it('counts captures, not holidays; a day left out by hand is one of them', () => {
    expect(dates({ weekdays: [5], until: { kind: 'count', count: 8 } }).at(-1)).toBe('2026-12-11')
    expect(dates({ until: { kind: 'count', count: 3 }, leftOut: ['2026-10-14'] })).toEqual(['2026-10-07', '2026-10-21'])
  })

  it('alternates by teaching week, over a reading week too', () => {
    expect(dates({ weeks: { kind: 'alternate', parity: 'odd' } }).slice(2, 5)).toEqual(['2026-11-04', '2026-11-25', '2026-12-09'])
  })

  it('keeps ten o’clock over the end of summer time', () => {
    for (const d of keptDates(base, london)) expect(wallOf('Europe/London', d.start).time).toBe('10:00')
  })

  it('may be single days, taught or not', () => {
    const rule: Rule = { ...base, weeks: { kind: 'dates', dates: ['2026-11-21', '2026-10-07'] } }
    expect(keptDates(rule, london).map((d) => [d.date, d.week])).toEqual([['2026-10-07', 1], ['2026-11-21', null]])
    expect(problemsOf({ ...rule, weeks: { kind: 'dates', dates: ['2026-02-30'] } }, london)).toHaveProperty('date')
  })

  it('are said in a few words', () => {
    expect(ruleWords({ ...base, weekdays: [1, 3] })).toBe('Mon and Wed every week, 10:00, 50 min')
    expect(ruleWords({ ...base, weeks: { kind: 'chosen', numbers: [1, 2, 3, 7] }, until: { kind: 'count', count: 3 } })).toBe('Wed, weeks 1–3, 7, 10:00, 50 min, 3 times')
  })

  it('are exactly those of a walk day by day', () => {
    const weeks = fc.oneof(fc.constant({ kind: 'every' as const }), fc.constantFrom('odd' as const, 'even' as const).map((parity) => ({ kind: 'alternate' as const, parity })),
      fc.uniqueArray(fc.integer({ min: 1, max: 16 }), { minLength: 1 }).map((numbers) => ({ kind: 'chosen' as const, numbers })))
    const rule = fc.record({
      term: fc.constantFrom(...terms), weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }), weeks,
      from: fc.option(fc.integer({ min: -10, max: 130 })), until: fc.oneof(fc.constant(null), fc.integer({ min: 0, max: 250 })), count: fc.option(fc.integer({ min: 1, max: 30 })),
      out: fc.uniqueArray(fc.integer({ min: 0, max: 120 }), { maxLength: 5 }), time: fc.constantFrom('08:00', '13:25', '02:30'),
    })
    fc.assert(fc.property(rule, ({ term, weekdays, weeks, from, until, count, out, time }) => {
      const day = (n: number) => addDays(term.teachingFrom, n)
      const made: Rule = {
        weekdays, start: time, minutes: 50, weeks, from: from === null ? null : day(from), leftOut: out.map(day),
        until: count !== null ? { kind: 'count', count } : until === null ? { kind: 'teaching' } : { kind: 'date', date: day(until) },
      }
      const byHand: string[] = []
      const all = weeksOf(term)
      let taken = 0
      for (let n = 0; n <= daysBetween(term.teachingFrom, term.teachingTo); n++) {
        const date = day(n)
        const week = all.find((w) => w.monday <= date && addDays(w.monday, 6) >= date)
        if (!weekdays.includes(weekdayOf(date)) || notTeaching(term, date) || !week || week.number === null) continue
        if (made.from && date < made.from) continue
        if (made.until.kind === 'date' && date > made.until.date) continue
        if (weeks.kind === 'alternate' && week.number % 2 !== (weeks.parity === 'odd' ? 1 : 0)) continue
        if (weeks.kind === 'chosen' && !weeks.numbers.includes(week.number)) continue
        if (made.until.kind === 'count' && ++taken > made.until.count) break
        if (!made.leftOut.includes(date)) byHand.push(date)
      }
      expect(keptDates(made, term).map((d) => d.date)).toEqual(byHand)
    }), { numRuns: 300 })
  })
})

describe('what is wrong with a rule', () => {
  it.each<[string, Partial<Rule>, string, RegExp]>([
    ['no weekday', { weekdays: [] }, 'weekdays', /at least one/],
    ['a day that is none', { from: '2026-11-31' }, 'from', /no such day/],
    ['an end before its start', { from: '2026-11-02', until: { kind: 'date', date: '2026-10-30' } }, 'until', /ends before it starts: the first day is Mon 2 Nov/],
    ['a week the term has not', { weeks: { kind: 'chosen', numbers: [3, 19] } }, 'weeks', /weeks 1 to 14; there is no week 19/],
    ['a start after teaching', { from: '2027-03-01' }, 'from', /ends on Fri 15 Jan/],
    ['nothing but holidays', { weekdays: [5], from: '2026-12-04', until: { kind: 'date', date: '2026-12-05' } }, 'weekdays', /no capture/],
  ])('names %s', (_, change, field, sentence) => {
    const problems = problemsOf({ ...base, ...change }, london)
    expect(Object.keys(problems)).toEqual([field])
    expect(Object.values(problems)[0]).toMatch(sentence)
  })

  it('knows the hour that does not exist', () => {
    const problems = problemsOf({ ...base, weekdays: [7], start: '02:30' }, auckland)
    expect(problems.start).toBe('02:30 does not exist on Sun 27 Sep: the clocks go forward over it. Choose another time or leave that day out.')
    expect(problemsOf({ ...base, weekdays: [7], start: '02:30', leftOut: ['2026-09-27'] }, auckland)).toEqual({})
  })
})

describe('dates to rules', () => {
  const weekdays = fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 3 })

  it('make exactly the dates they came from', () => {
    fc.assert(fc.property(fc.constantFrom(...terms), weekdays, fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), (term, days, mask) => {
      const all = keptDates({ ...base, weekdays: days }, term).map((d) => d.date)
      const wanted = all.filter((_, i) => mask[i % 40])
      const { rules, beside } = rulesFrom(wanted, { start: '10:00', minutes: 50 }, term)
      expect(beside).toEqual([])
      expect(rules.flatMap((r) => keptDates(r, term).map((d) => d.date)).sort()).toEqual(wanted)
    }), { numRuns: 200 })
  })

  it('find the plan that was meant', () => {
    const back = (change: Partial<Rule>) => rulesFrom(dates(change), { start: '10:00', minutes: 50 }, london).rules
    for (const meant of [{ weekdays: [1, 3, 5] }, { weeks: { kind: 'alternate' as const, parity: 'even' as const } }, { weekdays: [5], leftOut: ['2026-10-16'], weeks: { kind: 'every' as const } }]) {
      expect(back(meant)).toEqual([{ ...base, ...meant }])
    }
    expect(back({ weeks: { kind: 'chosen', numbers: [2, 3, 7] } })).toEqual([{ ...base, weeks: { kind: 'chosen', numbers: [2, 3, 7] } }])
  })

  it('keep what is not taught apart', () => {
    expect(rulesFrom(['2026-11-18', '2027-01-20', '2026-10-07'], { start: '10:00', minutes: 50 }, london).beside).toEqual(['2026-11-18', '2027-01-20'])
  })
})

describe('dates as a calendar’s recurrence', () => {
  it('make the same dates, with exceptions where teaching weeks are not calendar weeks', () => {
    fc.assert(fc.property(fc.constantFrom<Partial<Rule>>({}, { weekdays: [1, 4] }, { weeks: { kind: 'alternate', parity: 'odd' } }, { weekdays: [2, 5], leftOut: ['2026-10-13'] }), (change) => {
      const wanted = dates(change)
      const { interval, byDay, first, last, except } = recurrenceOf(wanted)
      const made: string[] = []
      for (let d = first, n = 0; d <= last; d = addDays(d, 1), n++) {
        const week = Math.floor(daysBetween(addDays(first, 1 - weekdayOf(first)), d) / 7)
        if (byDay.includes(weekdayOf(d)) && week % interval === 0 && !except.includes(d)) made.push(d)
      }
      expect(made).toEqual(wanted)
    }))
  })

  it('takes two-week steps only when that needs fewer exceptions', () => {
    const recurrence = recurrenceOf(['2026-10-05', '2026-10-19', '2026-11-02'])
    expect(recurrence).toMatchObject({ interval: 2, except: [] })
    expect(rruleText(recurrence, Date.UTC(2026, 10, 2, 10))).toBe('FREQ=WEEKLY;INTERVAL=2;WKST=MO;BYDAY=MO;UNTIL=20261102T100000Z')
  })
})
