/** The campus of the demo: term, rooms and recorders, people, courses, sections and class lists. */
import { createHash, randomBytes } from 'node:crypto'
import { Op, type Transaction } from 'sequelize'
import type { Term as TermShape } from '~~/core/term/calendar'
import { ClassListEntry } from '../server/models/class-list'
import { Course } from '../server/models/course'
import { Folder } from '../server/models/folder'
import { Person } from '../server/models/person'
import { Recorder } from '../server/models/recorder'
import { Room } from '../server/models/room'
import { Section } from '../server/models/section'
import { Term } from '../server/models/term'
import { TermSpan } from '../server/models/term-span'
import { Chance } from './chance'
import { courses, rooms, type DemoPerson } from './college'

export interface LoadedSection { id: string, folderId: string, code: string, course: string, title: string, number: string, people: number, teacher: Person, students: Person[] }
export interface Campus { termId: string, roomIds: Map<string, string>, sections: LoadedSection[], coordinator: Person, recorders: { room: string, key: string }[] }

export async function loadCampus(shape: TermShape, people: DemoPerson[], transaction: Transaction): Promise<Campus> {
  const term = await Term.create({ name: shape.name, zone: shape.zone, teachingFrom: shape.teachingFrom, teachingTo: shape.teachingTo }, { transaction })
  await TermSpan.bulkCreate(shape.spans.map((s) => ({ termId: term.id, kind: s.kind, fromDay: s.from, toDay: s.to, label: s.label })), { transaction })
  const made = await Room.bulkCreate(rooms.map((r) => ({ name: r.name, building: r.building, seats: r.seats, inputs: r.inputs, turnaroundMinutes: r.turnaround })), { transaction })
  const recorders = made.map((room) => ({ room: room.name, key: randomBytes(24).toString('base64url'), id: room.id }))
  await Recorder.bulkCreate(recorders.map((r) => ({ roomId: r.id, name: `${r.room} recorder`, keyHash: createHash('sha256').update(r.key).digest('base64url') })), { transaction })
  const persons = await Person.bulkCreate(people.map((p) => ({ subject: p.sub, name: p.name, email: p.email, role: p.role })), { transaction })
  return {
    termId: term.id,
    roomIds: new Map(made.map((r) => [r.name, r.id])),
    sections: await loadSections(term.id, persons, transaction),
    coordinator: persons.find((p) => p.role === 'staff')!,
    recorders: recorders.map(({ room, key }) => ({ room, key })),
  }
}

async function loadSections(termId: string, people: Person[], transaction: Transaction): Promise<LoadedSection[]> {
  const chance = new Chance(23)
  const teachers = people.filter((p) => p.role === 'instructor')
  const pupils = people.filter((p) => p.role === 'student')
  const made = await Course.bulkCreate(courses.map(([code, title]) => ({ code, title })), { transaction })
  const wanted = courses.flatMap(([code, title, sizes], i) => sizes.map((size, n) => ({ course: made[i]!, code: `${code}/0${n + 1}`, title, number: `0${n + 1}`, people: size })))
  const sections = await Section.bulkCreate(wanted.map((w) => ({ courseId: w.course.id, termId, number: w.number })), { transaction })
  const folders = await Folder.findAll({ where: { sectionId: { [Op.in]: sections.map((s) => s.id) }, parentId: null }, transaction })
  const folderOf = new Map(folders.map((f) => [f.sectionId, f.id]))
  const loaded = wanted.map((w, i): LoadedSection => {
    const fixed = { 'HYD-210/01': 0, 'LIM-230/01': 1 }[w.code]
    return {
      id: sections[i]!.id, folderId: folderOf.get(sections[i]!.id)!, code: w.code, course: w.course.code, title: w.title, number: w.number, people: w.people,
      teacher: teachers[fixed ?? 2 + (i % (teachers.length - 2))]!,
      // The first student of the list is everybody's example and is in the first section.
      students: w.code === 'HYD-210/01' ? [pupils[0]!, ...chance.shuffled(pupils.slice(1)).slice(0, w.people - 1)] : chance.shuffled(pupils.slice(1)).slice(0, w.people),
    }
  })
  loaded.find((s) => s.code === 'ECO-101/01')!.students.splice(0, 1, pupils[0]!)
  await ClassListEntry.bulkCreate(loaded.flatMap((s) => [
    { sectionId: s.id, personId: s.teacher.id, role: 'instructor' as const },
    ...s.students.map((p) => ({ sectionId: s.id, personId: p.id, role: 'student' as const })),
  ]), { transaction })
  return loaded
}
