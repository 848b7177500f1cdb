/**
 * Class data in the OneRoster CSV layout (1EdTech OneRoster 1.1 and 1.2, CSV binding): orgs,
 * academicSessions, courses, classes, users, enrollments, as a zip or as files.
 */
import { dayOf } from '~~/core/term/days'
import { faultsOf, type ClassData, type Kind, type PersonRecord, type RowError } from '~~/core/people/class-data'
import { readTable, Unreadable, type Table } from './csv'

/** File → the columns it must have. */
const needed = {
  'academicsessions.csv': ['sourcedId', 'title', 'type', 'startDate', 'endDate'],
  'courses.csv': ['sourcedId', 'title', 'courseCode'],
  'classes.csv': ['sourcedId', 'courseSourcedId', 'termSourcedIds', 'classCode'],
  'users.csv': ['sourcedId', 'username', 'givenName', 'familyName', 'email', 'role'],
  'enrollments.csv': ['sourcedId', 'classSourcedId', 'userSourcedId', 'role'],
} as const
type FileName = keyof typeof needed

const fileOf: Record<Kind, FileName> = { terms: 'academicsessions.csv', courses: 'courses.csv', sections: 'classes.csv', people: 'users.csv', enrolments: 'enrollments.csv' }
const MOST_ERRORS = 200
const roleIn = { student: 'student', teacher: 'instructor', administrator: 'instructor', aide: 'assistant', proctor: 'assistant' } as const

/**
 * @param files lower-case file name → bytes
 * @returns the records that are right, and a sentence with row and column for each that is not
 * @throws Unreadable when a file is missing or is no table
 */
export function readOneRoster(files: ReadonlyMap<string, Uint8Array>): { data: ClassData, errors: RowError[] } {
  const missing = (Object.keys(needed) as FileName[]).filter((name) => !files.has(name))
  if (missing.length) throw new Unreadable(`${missing.length === 1 ? 'A file is' : 'Files are'} missing: ${missing.join(', ')}. A OneRoster export holds all of ${Object.keys(needed).join(', ')}.`)
  const reader = new Reader(files)
  const data: ClassData = {
    terms: reader.each('terms', (at) => (at.is('type', ['term', 'semester', 'schoolYear', 'gradingPeriod']) === 'term' || at.cell('type') === 'semester'
      ? { sourceId: at.need('sourcedId'), name: at.need('title'), from: at.day('startDate'), to: at.day('endDate') } : null)),
    courses: reader.each('courses', (at) => ({ sourceId: at.need('sourcedId'), code: at.need('courseCode'), title: at.need('title') })),
    sections: reader.each('sections', (at) => ({ sourceId: at.need('sourcedId'), course: at.need('courseSourcedId'), term: at.need('termSourcedIds').split(',')[0]!.trim(), number: numberOf(at.need('classCode')) })),
    people: reader.each('people', (at) => person(at)),
    enrolments: reader.each('enrolments', (at) => ({
      sourceId: at.need('sourcedId'), section: at.need('classSourcedId'), person: at.need('userSourcedId'),
      role: roleIn[at.is('role', ['student', 'teacher', 'aide', 'proctor', 'administrator'])],
      from: at.day('beginDate', true), to: at.day('endDate', true),
    })),
  }
  for (const term of data.terms) if (term.to < term.from) reader.fault('terms', term.sourceId, 'endDate', `${term.name} ends on ${term.to}, before it begins on ${term.from}.`)
  const errors = [...reader.errors, ...(reader.errors.length ? [] : faultsOf(data, reader.rowOf))]
  return { data, errors: errors.sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : a.row - b.row)).slice(0, MOST_ERRORS) }
}

/** `HYD-210/01` and `HYD-210-01` are section 01; the number alone is taken as it is. */
const numberOf = (classCode: string): string => /[^/\s-]+$/.exec(classCode)?.[0] ?? classCode

function person(at: Cells): PersonRecord | null {
  const email = at.need('email').toLowerCase()
  if (email && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(email)) at.wrong('email', `“${email}” is not a mail address.`)
  const role = at.is('role', ['student', 'teacher', 'aide', 'administrator', 'siteAdministrator', 'districtAdministrator', 'systemAdministrator', 'proctor', 'guardian', 'parent', 'relative'])
  if (['guardian', 'parent', 'relative'].includes(role)) return null
  return {
    sourceId: at.need('sourcedId'), subject: at.need('username'), name: `${at.need('givenName')} ${at.need('familyName')}`.trim(), email,
    role: role === 'student' ? 'student' : 'instructor',
  }
}

/** The cells of one row, with a sentence for each that is wrong. */
class Cells {
  failed = false
  constructor(readonly cells: Record<string, string>, readonly fault: (column: string, sentence: string) => void) {}

  cell(column: string): string {
    return this.cells[column] ?? ''
  }

  wrong(column: string, sentence: string): void {
    this.failed = true
    this.fault(column, sentence)
  }

  need(column: string): string {
    const value = this.cell(column)
    if (value === '') this.wrong(column, 'is empty.')
    return value
  }

  is<T extends string>(column: string, allowed: readonly T[]): T {
    const value = this.cell(column)
    const found = allowed.find((a) => a.toLowerCase() === value.toLowerCase())
    if (!found) this.wrong(column, `is “${value}”; it may be ${allowed.slice(0, 5).join(', ')}.`)
    return found ?? allowed[0]!
  }

  day(column: string, optional = false): string {
    const value = this.cell(column).slice(0, 10)
    if (value === '' && optional) return ''
    try {
      dayOf(value)
    } catch {
      this.wrong(column, `is “${value}”; a day is written as 2026-10-05.`)
    }
    return value
  }
}

class Reader {
  readonly errors: RowError[] = []
  readonly #rows = new Map<string, { file: string, row: number }>()
  constructor(readonly files: ReadonlyMap<string, Uint8Array>) {}

  rowOf = (kind: Kind, sourceId: string) => this.#rows.get(`${kind} ${sourceId}`) ?? { file: fileOf[kind], row: 0 }

  fault(kind: Kind, sourceId: string, column: string, sentence: string): void {
    this.errors.push({ ...this.rowOf(kind, sourceId), column, sentence })
  }

  each<T extends { sourceId: string }>(kind: Kind, make: (at: Cells) => T | null): T[] {
    const file = fileOf[kind]
    const table = this.#table(file)
    const records: T[] = []
    for (const { row, cells } of table.rows) {
      // “tobedeleted” is the standard's way to say that a record is gone.
      if ((cells.status ?? '').toLowerCase() === 'tobedeleted') continue
      const at = new Cells(cells, (column, sentence) => this.errors.push({ file, row, column, sentence }))
      const record = make(at)
      if (at.failed || !record) continue
      const key = `${kind} ${record.sourceId}`
      if (this.#rows.has(key)) this.errors.push({ file, row, column: 'sourcedId', sentence: `“${record.sourceId}” stands in row ${this.#rows.get(key)!.row} already.` })
      else records.push(record)
      this.#rows.set(key, { file, row })
    }
    return records
  }

  #table(file: FileName): Table {
    const table = readTable(this.files.get(file)!, file)
    const lacking = needed[file].filter((column) => !table.columns.includes(column))
    if (lacking.length) throw new Unreadable(`${file} lacks the ${lacking.length === 1 ? 'column' : 'columns'} ${lacking.join(', ')}.`)
    return table
  }
}
