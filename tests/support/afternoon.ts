/** A term's class data and timetable as a registry would hand them over: 100 sections, 300 rows, nine of which clash. */
import yazl from 'yazl'
import { addDays, mondayOf } from '../../core/term/calendar'

export const rooms = ['Adit Theatre', 'Dovecote Hall 1', 'Ferry Annexe', 'Dovecote Hall 3', 'Millrace 104', 'Tithe Room', 'Weir Lab 2', 'Sluice House', 'Kiln Room', 'Orchard Seminar']
const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri']
const hours = [9, 10, 11, 12, 13, 14, 15, 16]
const two = (n: number) => String(n).padStart(2, '0')

export interface Afternoon { name: string, from: string, to: string }

/** Ten weeks of teaching, well after everything else. */
export const afternoonTerm = (lastTeaching: string, name = 'Afternoon term'): Afternoon => {
  const from = mondayOf(addDays(lastTeaching, 40))
  return { name, from, to: addDays(from, 9 * 7 + 4) }
}

export const sections = Array.from({ length: 100 }, (_, i) => ({ id: `cls-${i}`, code: `AFT-${100 + i}/01`, course: `crs-${i}`, teacher: `t-${i % 20}` }))

/** The five files of a OneRoster export. */
export function classDataFiles(term: Afternoon): Record<string, string> {
  const teachers = Array.from({ length: 20 }, (_, i) => `t-${i},active,afternoon.teacher${i},Teacher${i},Afternoon,afternoon.teacher${i}@fennick.example,teacher`)
  const students = Array.from({ length: 60 }, (_, i) => `st-${i},active,afternoon.student${i},Student${i},Afternoon,afternoon.student${i}@fennick.example,student`)
  return {
    'orgs.csv': 'sourcedId,status,name,type\norg,active,Fennick College,school',
    'academicSessions.csv': `sourcedId,status,title,type,startDate,endDate\nterm-aft,active,${term.name},term,${term.from},${term.to}`,
    'courses.csv': ['sourcedId,status,title,courseCode', ...sections.map((s, i) => `${s.course},active,Afternoon study ${i},AFT-${100 + i}`)].join('\n'),
    'classes.csv': ['sourcedId,status,title,courseSourcedId,classCode,termSourcedIds', ...sections.map((s) => `${s.id},active,${s.code},${s.course},${s.code},term-aft`)].join('\n'),
    'users.csv': ['sourcedId,status,username,givenName,familyName,email,role', ...teachers, ...students].join('\n'),
    'enrollments.csv': ['sourcedId,status,classSourcedId,userSourcedId,role,beginDate,endDate', ...sections.flatMap((s, i) => [`en-${i},active,${s.id},${s.teacher},teacher,,`, ...[0, 1, 2].map((k) => `en-${i}-${k},active,${s.id},st-${(i * 3 + k) % 60},student,,`)])].join('\n'),
  }
}

export async function zipOf(files: Record<string, string>): Promise<Buffer> {
  const zip = new yazl.ZipFile()
  for (const [name, text] of Object.entries(files)) zip.addBuffer(Buffer.from(text), name)
  zip.end()
  const parts: Buffer[] = []
  for await (const part of zip.outputStream) parts.push(part as Buffer)
  return Buffer.concat(parts)
}

export const CLASHES = 9

/** 300 weekly rows; every thirtieth or so is put where another one already is. */
export function timetableRows(): string[][] {
  const slots = rooms.flatMap((room) => days.flatMap((day) => hours.map((hour) => ({ room, day, hour }))))
  // Spread over the week, so that one section's three rows are at different times.
  const spread = slots.map((_, i) => slots[(i * 37) % slots.length]!)
  const rows: string[][] = []
  let next = 0
  for (let i = 0; i < 300; i++) {
    const slot = i % 33 === 32 ? spread[next - 1]! : spread[next++]!
    const section = sections[i % 100]!
    rows.push([`E${1000 + i}`, section.code, slot.day, `${two(slot.hour)}:00`, `${two(slot.hour)}:50`, slot.room, `afternoon.teacher${Number(section.teacher.slice(2))}@fennick.example`])
  }
  return rows
}

export const csvOf = (rows: string[][]): string => [['Event ID', 'Section', 'Day', 'Start', 'End', 'Room', 'Lecturer'], ...rows].map((r) => r.join(';')).join('\r\n')
