/** Class data: what the registry says against what is here, and taking the difference in. */
import { readFile } from 'node:fs/promises'
import { Op, QueryTypes, type Model, type ModelStatic, type Transaction, type WhereOptions } from 'sequelize'
import { differenceOf, kinds, type ClassData, type Difference, type Kind, type RowError } from '~~/core/people/class-data'
import { instantOf } from '~~/core/term/calendar'
import type { ClassDataResult, DataLine } from '~~/shared/imports/views'
import { readOneRoster } from '../adapters/one-roster'
import { pathOf } from '../adapters/store'
import { unzip } from '../adapters/zip'
import { database } from '../models/database'
import { ClassListEntry } from '../models/class-list'
import { Course } from '../models/course'
import type { Import } from '../models/import'
import { Person } from '../models/person'
import { Section } from '../models/section'
import { Term } from '../models/term'
import { record } from './audit'
import { Refusal } from './errors'
import { tell } from './live'

async function filesOf(item: Import): Promise<Map<string, Uint8Array>> {
  const all = new Map<string, Uint8Array>()
  for (const { name, key } of item.storeKeys) {
    const bytes = await readFile(pathOf(key))
    if (/\.zip$/i.test(name)) for (const [inner, data] of await unzip(bytes)) all.set(inner, data)
    else all.set(name.toLowerCase(), bytes)
  }
  return all
}

/**
 * What is here, under the registry's ids. What the registry has not named yet is recognised by what
 * it is: a course by its code, a person by the address, a section by course, term and number.
 */
async function hereAs(incoming: ClassData, transaction?: Transaction): Promise<ClassData> {
  const q = <T extends object>(sql: string) => database.query<T>(sql, { type: QueryTypes.SELECT, transaction })
  const ids = <T extends { sourceId: string }>(list: readonly T[], nameOf: (r: T) => string) => new Map(list.map((r) => [nameOf(r), r.sourceId]))
  const termBy = ids(incoming.terms, (t) => t.name)
  const courseBy = ids(incoming.courses, (c) => c.code)
  const personBy = ids(incoming.people, (p) => p.email)
  const terms = (await q<{ sourceId: string | null, name: string, from: string, to: string }>(`SELECT source_id AS "sourceId", name, to_char(teaching_from, 'YYYY-MM-DD') AS "from", to_char(teaching_to, 'YYYY-MM-DD') AS "to" FROM terms`))
    .map((t) => ({ ...t, sourceId: t.sourceId ?? termBy.get(t.name) ?? '' })).filter((t) => t.sourceId)
  const courses = (await q<{ sourceId: string | null, code: string, title: string }>('SELECT source_id AS "sourceId", code, title FROM courses')).map((c) => ({ ...c, sourceId: c.sourceId ?? courseBy.get(c.code) ?? '' })).filter((c) => c.sourceId)
  const people = (await q<{ sourceId: string | null, subject: string, name: string, email: string, role: 'staff' | 'instructor' | 'student' }>('SELECT source_id AS "sourceId", subject, name, email, role FROM people WHERE NOT barred'))
    .map((p) => ({ ...p, sourceId: p.sourceId ?? personBy.get(p.email) ?? '' })).filter((p) => p.sourceId)
  const sectionBy = ids(incoming.sections, (s) => `${s.course} ${s.term} ${s.number}`)
  const codeOf = new Map(courses.map((c) => [c.code, c.sourceId]))
  const termOf = new Map(terms.map((t) => [t.name, t.sourceId]))
  const sections = (await q<{ sourceId: string | null, course: string, term: string, number: string }>('SELECT s.source_id AS "sourceId", c.code AS course, t.name AS term, s.number FROM sections s JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = s.term_id'))
    .map((s) => ({ ...s, course: codeOf.get(s.course) ?? '', term: termOf.get(s.term) ?? '' })).map((s) => ({ ...s, sourceId: s.sourceId ?? sectionBy.get(`${s.course} ${s.term} ${s.number}`) ?? '' })).filter((s) => s.sourceId)
  const sectionIds = new Map(sections.map((s) => [`${s.course} ${s.term} ${s.number}`, s.sourceId]))
  const enrolmentBy = ids(incoming.enrolments, (e) => `${e.section} ${e.person} ${e.role}`)
  const emailOf = new Map(people.map((p) => [p.email, p.sourceId]))
  const enrolments = (await q<{ sourceId: string | null, course: string, term: string, number: string, email: string, role: 'instructor' | 'assistant' | 'student', from: string, to: string }>(`
    SELECT l.source_id AS "sourceId", c.code AS course, t.name AS term, s.number, p.email, l.role,
      coalesce(to_char(l.from_at AT TIME ZONE t.zone, 'YYYY-MM-DD'), '') AS "from", coalesce(to_char((l.to_at AT TIME ZONE t.zone) - interval '1 day', 'YYYY-MM-DD'), '') AS "to"
    FROM class_list l JOIN sections s ON s.id = l.section_id JOIN courses c ON c.id = s.course_id JOIN terms t ON t.id = s.term_id JOIN people p ON p.id = l.person_id`))
    .map((e) => ({ sourceId: e.sourceId ?? '', section: sectionIds.get(`${codeOf.get(e.course)} ${termOf.get(e.term)} ${e.number}`) ?? '', person: emailOf.get(e.email) ?? '', role: e.role, from: e.from, to: e.to }))
    .map((e) => ({ ...e, sourceId: e.sourceId || enrolmentBy.get(`${e.section} ${e.person} ${e.role}`) || '' })).filter((e) => e.sourceId && e.section)
  // Class lists of terms that the file does not speak of are none of its business; nor are their sections.
  const spoken = new Set(incoming.terms.map((t) => t.sourceId))
  const inTerms = sections.filter((s) => spoken.has(s.term))
  const theirs = new Set(inTerms.map((s) => s.sourceId))
  return { terms: terms.filter((t) => spoken.has(t.sourceId)), courses: courses.filter((c) => incoming.courses.some((i) => i.sourceId === c.sourceId)), sections: inTerms, people: people.filter((p) => personBy.has(p.email) || incoming.people.some((i) => i.sourceId === p.sourceId)), enrolments: enrolments.filter((e) => theirs.has(e.section)) }
}

type Differences = { [K in Kind]: Difference<ClassData[K][number]> }

async function compared(item: Import, transaction?: Transaction): Promise<{ data: ClassData, differences: Differences, result: ClassDataResult }> {
  const { data, errors } = readOneRoster(await filesOf(item))
  const here = await hereAs(data, transaction)
  if (!errors.length) errors.push(...await overlapping(data, transaction))
  // Somebody of the team stays of the team, whatever the registry calls them.
  const team = new Set(here.people.filter((p) => p.role === 'staff').map((p) => p.sourceId))
  const people = data.people.map((p) => (team.has(p.sourceId) ? { ...p, role: 'staff' as const } : p))
  const full = { ...data, people }
  const differences = Object.fromEntries(kinds.map((kind) => [kind, differenceOf(here[kind] as never[], full[kind] as never[])])) as unknown as Differences
  const words = wordsFor(full, here)
  const result: ClassDataResult = {
    errors,
    kinds: Object.fromEntries(kinds.map((kind) => {
      const d = differences[kind] as Difference<{ sourceId: string }>
      const line = (r: { sourceId: string }): DataLine => ({ what: words(kind, r), changes: [] })
      return [kind, {
        added: d.added.length, changed: d.changed.length, gone: d.gone.length, same: d.same,
        lines: { added: d.added.slice(0, SHOWN).map(line), gone: d.gone.slice(0, SHOWN).map(line), changed: d.changed.slice(0, SHOWN).map((c) => ({ what: words(kind, c.after), changes: c.fields.map((f) => `${f}: ${String(c.before[f as never])} → ${String(c.after[f as never])}`) })) },
      }]
    })) as ClassDataResult['kinds'],
  }
  return { data: full, differences, result }
}
const SHOWN = 200

/** Terms that share days with one that is here under another name. */
async function overlapping(data: ClassData, transaction?: Transaction): Promise<RowError[]> {
  const others = await Term.findAll({ where: { [Op.or]: [{ sourceId: null }, { sourceId: { [Op.notIn]: data.terms.map((t) => t.sourceId) } }], name: { [Op.notIn]: data.terms.map((t) => t.name) } }, transaction, raw: true })
  return data.terms.flatMap((t) => others.filter((o) => t.from <= o.teachingTo && o.teachingFrom <= t.to).map((o): RowError => ({
    file: 'academicsessions.csv', row: 0, column: 'startDate', sentence: `${t.name}, ${t.from} to ${t.to}, shares days with ${o.name}, ${o.teachingFrom} to ${o.teachingTo}. Terms do not overlap.`,
  })))
}

function wordsFor(data: ClassData, here: ClassData) {
  const all = <K extends Kind>(kind: K) => new Map([...here[kind], ...data[kind]].map((r) => [r.sourceId, r])) as Map<string, ClassData[K][number]>
  const [courses, terms, sections, people] = [all('courses'), all('terms'), all('sections'), all('people')]
  const section = (id: string) => {
    const s = sections.get(id)
    return s ? `${courses.get(s.course)?.code ?? s.course}/${s.number}, ${terms.get(s.term)?.name ?? s.term}` : id
  }
  return (kind: Kind, r: { sourceId: string }): string => {
    switch (kind) {
      case 'terms': return `${(r as ClassData['terms'][number]).name}, ${(r as ClassData['terms'][number]).from} to ${(r as ClassData['terms'][number]).to}`
      case 'courses': return `${(r as ClassData['courses'][number]).code} ${(r as ClassData['courses'][number]).title}`
      case 'sections': return section(r.sourceId)
      case 'people': return `${(r as ClassData['people'][number]).name}, ${(r as ClassData['people'][number]).email}`
      case 'enrolments': return `${people.get((r as ClassData['enrolments'][number]).person)?.name ?? 'somebody'} in ${section((r as ClassData['enrolments'][number]).section)} as ${(r as ClassData['enrolments'][number]).role}`
    }
  }
}

/** The difference, for looking over. @throws Unreadable for files that cannot be read */
export const compareClassData = async (item: Import): Promise<ClassDataResult> => (await compared(item)).result

/** Takes class data in. @throws Refusal 409 while rows are wrong */
export async function takeClassData(item: Import, zone: string): Promise<{ sentence: string }> {
  return database.transaction(async (transaction) => {
    const { data, differences, result } = await compared(item, transaction)
    if (result.errors.length) throw new Refusal(409, `${result.errors.length} rows are wrong. Correct them in the registry and bring the file again; nothing was taken.`)
    await write(data, differences, zone, transaction)
    await record(transaction, item.askedBy, 'class data taken in', item.id, Object.fromEntries(kinds.map((k) => [k, { added: result.kinds[k].added, changed: result.kinds[k].changed, gone: result.kinds[k].gone }])))
    await tell({ topic: 'timetable', sectionIds: null }, transaction)
    const sum = (what: 'added' | 'changed' | 'gone') => kinds.reduce((n, k) => n + result.kinds[k][what], 0)
    return { sentence: `Class data taken in: ${sum('added')} new, ${sum('changed')} changed, ${result.kinds.enrolments.gone} gone from class lists.` }
  })
}

async function write(data: ClassData, d: Differences, zone: string, transaction: Transaction): Promise<void> {
  const touched = <T extends { sourceId: string }>(x: Difference<T>) => [...x.added, ...x.changed.map((c) => c.after)]
  const at = { transaction }
  for (const t of data.terms) await upsert(Term, { sourceId: t.sourceId }, { name: t.name }, { name: t.name, teachingFrom: t.from, teachingTo: t.to, sourceId: t.sourceId }, { zone }, at)
  for (const c of data.courses) await upsert(Course, { sourceId: c.sourceId }, { code: c.code }, { code: c.code, title: c.title, sourceId: c.sourceId }, {}, at)
  const termId = new Map((await Term.findAll({ ...at, raw: true })).map((t) => [t.sourceId, t.id]))
  const courseId = new Map((await Course.findAll({ ...at, raw: true })).map((c) => [c.sourceId, c.id]))
  for (const s of data.sections) {
    const row = { courseId: courseId.get(s.course)!, termId: termId.get(s.term)!, number: s.number, sourceId: s.sourceId }
    await upsert(Section, { sourceId: s.sourceId }, { courseId: row.courseId, termId: row.termId, number: row.number }, row, {}, at)
  }
  await writePeople(data, touched(d.people), transaction)
  await writeLists(data, d, zone, transaction)
}

/** Found by the registry's id, else by what it is; changed, or made. */
async function upsert(model: typeof Term | typeof Course | typeof Section, byId: WhereOptions, byNature: WhereOptions, row: object, fresh: object, at: { transaction: Transaction }): Promise<void> {
  const M = model as ModelStatic<Model>
  const found = await M.findOne({ where: byId, ...at }) ?? await M.findOne({ where: byNature, ...at })
  if (found) await found.update(row, at)
  else await M.create({ ...row, ...fresh } as never, at)
}

async function writePeople(data: ClassData, touched: ClassData['people'], transaction: Transaction): Promise<void> {
  // Those who are here under their address get the registry's id first; then all are written by it.
  await database.query(`UPDATE people p SET source_id = x.id FROM jsonb_to_recordset($rows::jsonb) AS x(id text, email text) WHERE lower(p.email) = x.email AND p.source_id IS NULL`,
    { bind: { rows: JSON.stringify(data.people.map((p) => ({ id: p.sourceId, email: p.email }))) }, transaction })
  const here = new Set((await Person.findAll({ where: { sourceId: { [Op.ne]: null } }, attributes: ['sourceId'], transaction, raw: true })).map((p) => p.sourceId))
  const fresh = touched.filter((p) => !here.has(p.sourceId))
  for (let i = 0; i < fresh.length; i += 1000) await Person.bulkCreate(fresh.slice(i, i + 1000).map((p) => ({ ...p })), { transaction, returning: false })
  await database.query(`UPDATE people p SET name = x.name, email = x.email, role = x.role, subject = x.subject FROM jsonb_to_recordset($rows::jsonb) AS x("sourceId" text, subject text, name text, email text, role text) WHERE p.source_id = x."sourceId"`,
    { bind: { rows: JSON.stringify(touched) }, transaction })
}

async function writeLists(data: ClassData, d: Differences, zone: string, transaction: Transaction): Promise<void> {
  const section = new Map((await Section.findAll({ transaction, raw: true })).map((s) => [s.sourceId, s.id]))
  const person = new Map((await Person.findAll({ attributes: ['id', 'sourceId'], transaction, raw: true })).map((p) => [p.sourceId, p.id]))
  const day = (date: string, plus: number) => (date ? new Date(instantOf(zone, date, '00:00') + plus) : null)
  const gone = d.enrolments.gone.map((e) => ({ section: section.get(e.section), person: person.get(e.person), role: e.role }))
  await database.query(`DELETE FROM class_list l USING jsonb_to_recordset($rows::jsonb) AS x(section uuid, person uuid, role text) WHERE l.section_id = x.section AND l.person_id = x.person AND l.role = x.role`,
    { bind: { rows: JSON.stringify(gone) }, transaction })
  const rows = data.enrolments.map((e) => ({ sectionId: section.get(e.section)!, personId: person.get(e.person)!, role: e.role, fromAt: day(e.from, 0), toAt: day(e.to, 24 * 3600_000), sourceId: e.sourceId }))
  for (let i = 0; i < rows.length; i += 1000) {
    await ClassListEntry.bulkCreate(rows.slice(i, i + 1000), { transaction, returning: false, updateOnDuplicate: ['fromAt', 'toAt', 'sourceId'], conflictAttributes: ['sectionId', 'personId', 'role'] as never })
  }
}

