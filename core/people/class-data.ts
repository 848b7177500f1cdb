/**
 * Class data as a registry hands it over: terms, courses, sections, people and class lists, each with
 * the registry's own id. {@link differenceOf} compares what is here with what comes in.
 */
export interface TermRecord { sourceId: string, name: string, from: string, to: string }
export interface CourseRecord { sourceId: string, code: string, title: string }
export interface SectionRecord { sourceId: string, course: string, term: string, number: string }
export interface PersonRecord { sourceId: string, subject: string, name: string, email: string, role: 'staff' | 'instructor' | 'student' }
/** One line of a class list: ids of the registry; days, both included, or empty. */
export interface EnrolmentRecord { sourceId: string, section: string, person: string, role: 'instructor' | 'assistant' | 'student', from: string, to: string }

export interface ClassData { terms: TermRecord[], courses: CourseRecord[], sections: SectionRecord[], people: PersonRecord[], enrolments: EnrolmentRecord[] }
export type Kind = keyof ClassData
export const kinds = ['terms', 'courses', 'sections', 'people', 'enrolments'] as const satisfies readonly Kind[]

export interface Difference<T> {
  added: T[]
  changed: { before: T, after: T, fields: string[] }[]
  /** here, but not in what comes in */
  gone: T[]
  same: number
}

/**
 * What an import would do to one kind of record.
 * Records are told apart by the registry's id. @param before with ids unique; @param incoming likewise
 */
export function differenceOf<T extends { sourceId: string }>(before: readonly T[], incoming: readonly T[]): Difference<T> {
  const here = new Map(before.map((r) => [r.sourceId, r]))
  const found: Difference<T> = { added: [], changed: [], gone: [], same: 0 }
  const seen = new Set<string>()
  for (const after of incoming) {
    seen.add(after.sourceId)
    const old = here.get(after.sourceId)
    if (!old) {
      found.added.push(after)
      continue
    }
    const fields = Object.keys(after).filter((key) => old[key as keyof T] !== after[key as keyof T])
    if (fields.length) found.changed.push({ before: old, after, fields })
    else found.same++
  }
  found.gone = before.filter((r) => !seen.has(r.sourceId))
  return found
}

/** A line of a file that cannot be taken, with where it stands. */
export interface RowError { file: string, row: number, column: string, sentence: string }

/**
 * References that lead nowhere, ids that come twice and terms that overlap, found before anything is
 * written. @param rowOf where a record stood, for the sentence
 */
export function faultsOf(data: ClassData, rowOf: (kind: Kind, sourceId: string) => { file: string, row: number }): RowError[] {
  const faults: RowError[] = []
  const known = Object.fromEntries(kinds.map((kind) => [kind, new Set(data[kind].map((r) => r.sourceId))])) as Record<Kind, Set<string>>
  const need = (kind: Kind, record: { sourceId: string }, column: string, of: Kind, id: string, what: string) => {
    if (!known[of].has(id)) faults.push({ ...rowOf(kind, record.sourceId), column, sentence: `names ${what} “${id}”, which is in no row of its file.` })
  }
  for (const s of data.sections) {
    need('sections', s, 'courseSourcedId', 'courses', s.course, 'the course')
    need('sections', s, 'termSourcedIds', 'terms', s.term, 'the term')
  }
  for (const e of data.enrolments) {
    need('enrolments', e, 'classSourcedId', 'sections', e.section, 'the class')
    need('enrolments', e, 'userSourcedId', 'people', e.person, 'the person')
  }
  const terms = [...data.terms].sort((a, b) => (a.from < b.from ? -1 : 1))
  terms.slice(1).forEach((term, i) => {
    const before = terms[i]!
    if (term.from <= before.to) faults.push({ ...rowOf('terms', term.sourceId), column: 'startDate', sentence: `${term.name} begins on ${term.from}, before ${before.name} ends on ${before.to}. Terms do not overlap.` })
  })
  const emails = new Map<string, string>()
  for (const p of data.people) {
    const other = emails.get(p.email)
    if (other) faults.push({ ...rowOf('people', p.sourceId), column: 'email', sentence: `${p.email} is also the address of “${other}”. Two people cannot share one.` })
    emails.set(p.email, p.sourceId)
  }
  return faults
}
