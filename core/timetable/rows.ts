/**
 * Rows of somebody's timetable → wanted capture plans. A row gives a weekday and weeks, or one date;
 * rows with dates that belong together become one plan.
 */
import type { Term } from '../term/calendar'
import { minutesOf } from '../term/days'
import { dateIn, folded, NotUnderstood, timeIn, weekdaysIn, weeksIn, type DateOrder } from './cells'
import { rulesFrom } from './from-dates'
import { keptDates, problemsOf, type Rule } from './rule'
import type { Wanted } from './wanted'

/** What a column may stand for. */
export const fields = ['key', 'section', 'course', 'number', 'weekdays', 'weeks', 'date', 'from', 'until', 'start', 'end', 'minutes', 'room', 'presenter', 'title'] as const
export type Field = typeof fields[number]

/** Field → name of the column; dates are read day first unless said otherwise. */
export interface Mapping { columns: Partial<Record<Field, string>>, dateOrder: DateOrder }

export interface SectionEntry { id: string, code: string, presenterId: string | null }
export interface RoomEntry { id: string, name: string, inputs: readonly string[] }
export interface PersonEntry { id: string, name: string, email: string }
/** What names in rows are looked up in. */
export interface Directory { sections: readonly SectionEntry[], rooms: readonly RoomEntry[], people: readonly PersonEntry[] }

export interface SourceRow { row: number, cells: Readonly<Record<string, string>> }
export interface RowFault { row: number, column: string, sentence: string }

/** A plan with the rows it came from; `key` names it for the source, empty when no column does. */
export interface Incoming { key: string, wanted: Wanted, rows: number[] }

const guesses: [Field, RegExp][] = [
  ['key', /^(row |event |activity |booking )?(id|key|ref(erence)?)$/], ['section', /^(section|class|class code|module|group)$/], ['course', /^(course|course code|subject)$/], ['number', /^(section (number|no)|number)$/],
  ['weekdays', /^(day|days|weekday|weekdays)$/], ['weeks', /^(weeks?|teaching weeks?|week pattern)$/], ['date', /^date$/], ['from', /^(from|first date|start date|first day)$/], ['until', /^(until|last date|end date|last day)$/],
  ['start', /^(start|starts|start time|time|begins?)$/], ['end', /^(end|ends|end time|finish|finishes)$/], ['minutes', /^(minutes|length|duration|mins)$/],
  ['room', /^(room|location|venue)$/], ['presenter', /^(presenter|instructor|lecturer|teacher|staff|tutor)$/], ['title', /^(title|topic|description|event)$/],
]

/** Columns guessed from their names; a remembered mapping goes before. */
export function guessMapping(columns: readonly string[], remembered?: Mapping): Mapping {
  const guessed: Mapping['columns'] = {}
  for (const [field, name] of guesses) {
    const before = remembered?.columns[field]
    const column = before && columns.includes(before) ? before : columns.find((c) => name.test(folded(c)) && !Object.values(guessed).includes(c))
    if (column) guessed[field] = column
  }
  return { columns: guessed, dateOrder: remembered?.dateOrder ?? 'dmy' }
}

/** What a mapping lacks, in a sentence; empty when rows can be read with it. */
export function lackOf({ columns }: Mapping): string {
  const has = (field: Field) => columns[field] !== undefined
  const lacks = [
    ...(has('section') || has('course') ? [] : ['the section']), ...(has('weekdays') || has('date') ? [] : ['the weekday or the date']),
    ...(has('start') ? [] : ['the start']), ...(has('end') || has('minutes') ? [] : ['the end or the minutes']), ...(has('room') ? [] : ['the room']),
  ]
  return lacks.length ? `Say which column holds ${lacks.join(', ')}.` : ''
}

interface Parsed { row: number, key: string, sectionId: string, room: RoomEntry, presenterId: string, title: string, start: string, minutes: number, rule: Rule | null, date: string }

/**
 * Reads rows with a mapping.
 * @returns plans in order of their first row, and a sentence for each row that is not understood
 */
export function understand(rows: readonly SourceRow[], mapping: Mapping, directory: Directory, term: Term): { plans: Incoming[], faults: RowFault[] } {
  const look = new Lookup(directory)
  const faults: RowFault[] = []
  const parsed = rows.flatMap((row) => {
    const reader = new RowReader(row, mapping)
    try {
      return [parseRow(reader, look, term)]
    } catch (error) {
      if (!(error instanceof NotUnderstood)) throw error
      faults.push({ row: row.row, column: reader.column, sentence: error.message })
      return []
    }
  })
  const plans = [...parsed.filter((p) => p.rule).map((p): Incoming => ({ key: p.key, rows: [p.row], wanted: wantedOf(p, p.rule!) })), ...fromDates(parsed.filter((p) => !p.rule), term)]
  return { plans: plans.sort((a, b) => a.rows[0]! - b.rows[0]!), faults }
}

class RowReader {
  /** the column read last, for the sentence when it is not understood */
  column = ''
  constructor(readonly source: SourceRow, readonly mapping: Mapping) {}

  cell(field: Field): string {
    const column = this.mapping.columns[field]
    if (column === undefined) return ''
    this.column = column
    return (this.source.cells[column] ?? '').trim()
  }

  need(field: Field, what: string): string {
    const value = this.cell(field)
    if (value === '') throw new NotUnderstood(`is empty; ${what} is needed`)
    return value
  }
}

/** Names → things, each folded, so that case, accents and spaces do not count. */
class Lookup {
  readonly #sections: Map<string, SectionEntry>
  readonly #rooms: Map<string, RoomEntry>
  readonly #people = new Map<string, PersonEntry | 'several'>()
  readonly #emails: Map<string, PersonEntry>

  constructor({ sections, rooms, people }: Directory) {
    this.#sections = new Map(sections.map((s) => [folded(s.code), s]))
    this.#rooms = new Map(rooms.map((r) => [folded(r.name), r]))
    this.#emails = new Map(people.map((p) => [p.email.toLowerCase(), p]))
    for (const p of people) for (const name of new Set([folded(p.name), folded(p.name.split(' ').reverse().join(' '))])) this.#people.set(name, this.#people.has(name) ? 'several' : p)
  }

  section(code: string): SectionEntry {
    const found = this.#sections.get(folded(code))
    if (!found) throw new NotUnderstood(`“${code}” is no section of this term`)
    return found
  }

  room(name: string): RoomEntry {
    const found = this.#rooms.get(folded(name))
    if (!found) throw new NotUnderstood(`“${name}” is no room here`)
    return found
  }

  person(name: string): PersonEntry {
    const found = this.#emails.get(name.toLowerCase()) ?? this.#people.get(folded(name))
    if (found === 'several') throw new NotUnderstood(`“${name}” is the name of several people; give the mail address`)
    if (!found) throw new NotUnderstood(`“${name}” is nobody who may present here`)
    return found
  }
}

function parseRow(reader: RowReader, look: Lookup, term: Term): Parsed {
  const key = reader.cell('key')
  const whole = reader.cell('section')
  const section = look.section(whole || `${reader.need('course', 'the course')}/${reader.need('number', 'the section’s number')}`)
  const room = look.room(reader.need('room', 'a room'))
  const start = timeIn(reader.need('start', 'the start'))
  const minutes = lengthOf(reader, start)
  const title = reader.cell('title').slice(0, 160)
  const date = reader.cell('date')
  const day = date ? dateIn(date, reader.mapping.dateOrder) : ''
  const rule = day ? null : ruleOf(reader, start, minutes, term)
  if (day) refuseProblem({ weekdays: [], start, minutes, weeks: { kind: 'dates', dates: [day] }, from: null, until: { kind: 'teaching' }, leftOut: [] }, term)
  const name = reader.cell('presenter')
  const presenterId = name ? look.person(name).id : section.presenterId
  if (!presenterId) throw new NotUnderstood('is empty, and the section has no instructor to take instead')
  return { row: reader.source.row, key, sectionId: section.id, room, presenterId, title, start, minutes, rule, date: day }
}

function lengthOf(reader: RowReader, start: string): number {
  const end = reader.cell('end')
  const minutes = end ? minutesOf(timeIn(end)) - minutesOf(start) : Number(reader.need('minutes', 'the end or the minutes').replace(/\s*min.*$/i, ''))
  if (end && minutes <= 0) throw new NotUnderstood(`ends at ${end}, not after its start at ${start}`)
  if (!Number.isInteger(minutes) || minutes < 2 || minutes > 480) throw new NotUnderstood(end ? `makes ${minutes} minutes; a capture has 2 to 480` : `“${reader.cell('minutes')}” is not a length of 2 to 480 minutes`)
  return minutes
}

function ruleOf(reader: RowReader, start: string, minutes: number, term: Term): Rule {
  const weekdays = weekdaysIn(reader.need('weekdays', 'a weekday'))
  const weeks = weeksIn(reader.cell('weeks'))
  const from = reader.cell('from')
  const until = reader.cell('until')
  const order = reader.mapping.dateOrder
  const rule: Rule = { weekdays, start, minutes, weeks, leftOut: [], from: from ? dateIn(from, order) : null, until: until ? { kind: 'date', date: dateIn(until, order) } : { kind: 'teaching' } }
  if (rule.from !== null && rule.from <= term.teachingFrom) rule.from = null
  if (rule.until.kind === 'date' && rule.until.date >= term.teachingTo) rule.until = { kind: 'teaching' }
  refuseProblem(rule, term)
  return rule
}

function refuseProblem(rule: Rule, term: Term): void {
  const [problem] = Object.values(problemsOf(rule, term))
  if (problem) throw new NotUnderstood(problem.replace(/\.$/, ''))
}

const wantedOf = (p: Parsed, rule: Rule): Wanted => ({
  ...rule, sectionId: p.sectionId, roomId: p.room.id, presenterId: p.presenterId, title: p.title, exceptions: {},
  // A timetable says nothing of inputs: what the room has is taken in, a document camera only on request.
  inputs: p.room.inputs.filter((i) => i !== 'document camera'),
})

/** Rows with one date each: those alike in all but the date become one plan, or a few. */
function fromDates(parsed: Parsed[], term: Term): Incoming[] {
  const groups = new Map<string, Parsed[]>()
  for (const p of parsed) {
    const like = JSON.stringify([p.sectionId, p.room.id, p.presenterId, p.title, p.start, p.minutes])
    groups.set(like, [...(groups.get(like) ?? []), p])
  }
  return [...groups.values()].flatMap((group) => {
    const [first] = group
    const time = { start: first!.start, minutes: first!.minutes }
    const { rules, beside } = rulesFrom(group.map((p) => p.date), time, term)
    const single: Rule[] = beside.length ? [{ weekdays: [], ...time, weeks: { kind: 'dates', dates: beside }, from: null, until: { kind: 'teaching' }, leftOut: [] }] : []
    return [...rules, ...single].map((rule): Incoming => {
      const dates = new Set(keptDates(rule, term).map((d) => d.date))
      const own = group.filter((p) => dates.has(p.date))
      return { key: own[0]!.key, rows: own.map((p) => p.row), wanted: wantedOf(first!, rule) }
    })
  })
}
