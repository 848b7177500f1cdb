import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import type { Term } from '../term/calendar'
import { dateIn, folded, timeIn, weekdaysIn, weeksIn } from './cells'
import { fieldsBetween, importDifference, withChanges, type Known } from './difference'
import { guessMapping, lackOf, understand, type Directory, type Incoming } from './rows'
import { keptDates } from './rule'

const term: Term = { name: 'Autumn', zone: 'Europe/London', teachingFrom: '2026-10-05', teachingTo: '2026-12-11', spans: [{ kind: 'holiday', from: '2026-12-04', to: '2026-12-04', label: 'Founders’ day' }] }
const directory: Directory = {
  sections: [{ id: 'h1', code: 'HYD-210/01', presenterId: 'p1' }, { id: 's1', code: 'STO-140/02', presenterId: null }],
  rooms: [{ id: 'a', name: 'Adit Theatre', inputs: ['sound', 'document camera'] }, { id: 'd', name: 'Dovecote Hall 1', inputs: ['sound'] }],
  people: [{ id: 'p1', name: 'Tamsin Okoro', email: 't@x.example' }, { id: 'p2', name: 'Mei-Lin Garrow', email: 'm@x.example' }, { id: 'p3', name: 'Mei Lin Garrow', email: 'n@x.example' }],
}

describe('cells', () => {
  it.each([['9:00', '09:00'], ['09.00', '09:00'], ['0900', '09:00'], ['9am', '09:00'], ['2:30 pm', '14:30'], ['12 am', '00:00'], ['14:05:00', '14:05']])('time %s', (text, time) => expect(timeIn(text)).toBe(time))
  it.each(['25:00', 'noon', '', '9:61', '-1'])('no time: %s', (text) => expect(() => timeIn(text)).toThrow())
  it.each<[string, number[]]>([['Mon', [1]], ['Wednesday, Monday', [1, 3]], ['Tu/Th', [2, 4]], ['MWF', [1, 3, 5]], ['TR', [2, 4]], ['1 3', [1, 3]], ['Sat and Sun', [6, 7]]])('weekdays %s', (text, days) => expect(weekdaysIn(text)).toEqual(days))
  it.each(['', 'someday', 'Mon-ish'])('no weekday: %s', (text) => expect(() => weekdaysIn(text)).toThrow())
  it('weeks', () => {
    expect(weeksIn('')).toEqual({ kind: 'every' })
    expect(weeksIn('Weeks 1-3, 7')).toEqual({ kind: 'chosen', numbers: [1, 2, 3, 7] })
    expect(weeksIn('odd')).toEqual({ kind: 'alternate', parity: 'odd' })
    expect(() => weeksIn('5-2')).toThrow('not a list of weeks')
  })
  it.each([['2026-10-05', '2026-10-05'], ['5/10/2026', '2026-10-05'], ['05.10.26', '2026-10-05'], ['Mon 5 October 2026', '2026-10-05'], ['5-Oct-26', '2026-10-05']])('date %s', (text, date) => expect(dateIn(text, 'dmy')).toBe(date))
  it('dates month first only when told, and none that does not exist', () => {
    expect(dateIn('10/5/2026', 'mdy')).toBe('2026-10-05')
    expect(() => dateIn('31/11/2026', 'dmy')).toThrow('is not a day')
    expect(folded(' Kärst–Halle  2 ')).toBe('karst halle 2')
  })
})

const columns = ['Section', 'Day', 'Weeks', 'Date', 'Start', 'End', 'Room', 'Lecturer']
const mapping = guessMapping(columns)
const row = (n: number, ...cells: string[]) => ({ row: n, cells: Object.fromEntries(columns.map((c, i) => [c, cells[i] ?? ''])) })

describe('rows', () => {
  it('have their columns guessed and remembered', () => {
    expect(mapping.columns).toEqual({ section: 'Section', weekdays: 'Day', weeks: 'Weeks', date: 'Date', start: 'Start', end: 'End', room: 'Room', presenter: 'Lecturer' })
    expect(lackOf(guessMapping(['Section', 'Room']))).toBe('Say which column holds the weekday or the date, the start, the end or the minutes.')
    expect(guessMapping(['Wo', 'Room'], { columns: { room: 'Wo' }, dateOrder: 'mdy' })).toEqual({ columns: { room: 'Wo' }, dateOrder: 'mdy' })
  })

  it('become plans; rows of single dates become the plan they came from', () => {
    const dates = keptDates({ weekdays: [5], start: '11:00', minutes: 50, weeks: { kind: 'every' }, from: null, until: { kind: 'teaching' }, leftOut: [] }, term).map((d) => d.date)
    const { plans, faults } = understand([row(2, 'hyd-210/01', 'MW', '1-5', '', '10:00', '10:50', 'ADIT theatre'), ...dates.map((d, i) => row(3 + i, 'STO 140 02', '', '', d, '11', '11:50', 'Dovecote Hall 1', 'Okoro Tamsin'))], mapping, directory, term)
    expect(faults).toEqual([])
    expect(plans).toHaveLength(2)
    expect(plans[0]!.wanted).toMatchObject({ weekdays: [1, 3], weeks: { kind: 'chosen', numbers: [1, 2, 3, 4, 5] }, presenterId: 'p1', inputs: ['sound'] })
    expect(plans[1]!.wanted).toMatchObject({ weekdays: [5], weeks: { kind: 'every' }, until: { kind: 'teaching' }, presenterId: 'p1' })
    expect(plans[1]!.rows).toEqual(dates.map((_, i) => 3 + i))
  })

  it.each<[string, string[], string, string]>([
    ['a section nobody knows', ['ZZZ-1/01', 'Mon', '', '', '9:00', '10:00', 'Adit Theatre'], 'Section', '“ZZZ-1/01” is no section of this term'],
    ['a room nobody knows', ['HYD-210/01', 'Mon', '', '', '9:00', '10:00', 'Attic'], 'Room', '“Attic” is no room here'],
    ['an end before the start', ['HYD-210/01', 'Mon', '', '', '9:00', '8:00', 'Adit Theatre'], 'End', 'ends at 8:00, not after its start at 09:00'],
    ['a week the term has not', ['HYD-210/01', 'Mon', '12-14', '', '9:00', '10:00', 'Adit Theatre'], 'Weeks', 'Autumn has teaching weeks 1 to 10; there is no week 12, 13, 14'],
    ['a name that two people have', ['HYD-210/01', 'Mon', '', '', '9:00', '10:00', 'Adit Theatre', 'Mei-Lin Garrow'], 'Lecturer', '“Mei-Lin Garrow” is the name of several people; give the mail address'],
    ['nobody to present', ['STO-140/02', 'Mon', '', '', '9:00', '10:00', 'Adit Theatre'], 'Lecturer', 'is empty, and the section has no instructor to take instead'],
    ['nothing but a section', ['HYD-210/01'], 'Room', 'is empty; a room is needed'],
  ])('with %s are named with row and column', (_, cells, column, sentence) => {
    expect(understand([row(7, ...cells)], mapping, directory, term)).toEqual({ plans: [], faults: [{ row: 7, column, sentence }] })
  })
})

describe('a timetable taken in again', () => {
  const incoming: fc.Arbitrary<Incoming[]> = fc.array(fc.record({
    key: fc.constant(''), rows: fc.constant<number[]>([1]),
    wanted: fc.record({
      sectionId: fc.constantFrom('s', 't'), weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 3 }), { minLength: 1 }), start: fc.constantFrom('09:00', '10:00'), minutes: fc.constantFrom(50, 110),
      roomId: fc.constantFrom('a', 'd'), presenterId: fc.constant('p'), title: fc.constantFrom('', 'x'), inputs: fc.constant<string[]>(['sound']), exceptions: fc.constant({}), weeks: fc.constant({ kind: 'every' as const }),
      from: fc.constant(null), until: fc.constant({ kind: 'teaching' as const }), leftOut: fc.constant([] as string[]),
    }),
  }), { maxLength: 12 })
  const known = (plans: Incoming[]): Known[] => plans.map((p, i) => ({ key: p.key || String(i), wanted: p.wanted }))

  it('twice changes nothing', () => {
    fc.assert(fc.property(incoming, (plans) => {
      const found = importDifference(known(plans), plans)
      expect([found.added, found.changed, found.gone]).toEqual([[], [], []])
      expect(found.same).toHaveLength(plans.length)
    }))
  })

  it('pairs each plan with at most one, and forgets none', () => {
    fc.assert(fc.property(incoming, incoming, (before, after) => {
      const found = importDifference(known(before), after)
      const pairs = [...found.same, ...found.changed]
      expect([...found.added, ...pairs.map((p) => p.incoming)].sort((a, b) => a - b)).toEqual(after.map((_, i) => i))
      expect([...found.gone, ...pairs.map((p) => p.known)].sort((a, b) => a - b)).toEqual(before.map((_, i) => i))
      for (const p of found.changed) expect(before[p.known]!.wanted.sectionId).toBe(after[p.incoming]!.wanted.sectionId)
    }))
  })

  it('changes what the source changed and leaves the rest as it stands', () => {
    fc.assert(fc.property(incoming, incoming, incoming, (a, b, c) => {
      const [base, next, standing] = [a[0]?.wanted, b[0]?.wanted, c[0]?.wanted]
      if (!base || !next || !standing) return
      const fields = fieldsBetween(base, next)
      const made = withChanges(standing, next, fields)
      for (const field of fields) expect(fieldsBetween(made, next)).not.toContain(field)
      for (const field of fieldsBetween(made, standing)) expect([...fields, ...(fields.includes('room') ? ['inputs'] : [])]).toContain(field)
    }))
  })

  it('sees a plan that moved as changed, and names what changed', () => {
    const base = { sectionId: 's', weekdays: [1], start: '09:00', minutes: 50, roomId: 'a', presenterId: 'p', title: '', inputs: ['sound'], exceptions: {}, weeks: { kind: 'every' as const }, from: null, until: { kind: 'teaching' as const }, leftOut: [] }
    const found = importDifference([{ key: '1', wanted: base }], [{ key: '', rows: [2], wanted: { ...base, start: '11:00', roomId: 'd' } }])
    expect(found.changed).toEqual([{ known: 0, incoming: 0, fields: ['start', 'room'] }])
    expect(importDifference([{ key: 'k', wanted: base }], [{ key: 'k', rows: [2], wanted: { ...base, weekdays: [4], start: '15:00', roomId: 'd' } }]).changed[0]!.fields).toEqual(['dates', 'start', 'room'])
  })
})
