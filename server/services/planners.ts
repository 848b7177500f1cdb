/** Who may plan for which sections, as routes ask it. */
import { decide, type Who } from '~~/core/access/decide'
import { campusNow } from '../adapters/clock'
import { Capture } from '../models/capture'
import { TimetableEdit } from '../models/timetable-edit'
import { ask, must } from './access'
import { nothingHere } from './errors'

type Person = Extract<Who, { kind: 'person' }>

/**
 * The sections somebody plans for; null stands for all.
 * @throws Refusal 404 when there is none
 */
export function planningSections(who: Person): string[] | null {
  if (ask(who, 'plan', { kind: 'house' }).allowed) return null
  const at = campusNow()
  const mine = [...new Set(who.memberships.map((m) => m.sectionId))].filter((sectionId) => decide({ who, action: 'plan', thing: { kind: 'section', sectionId }, at, way: 'address' }).allowed)
  if (!mine.length) throw nothingHere()
  return mine
}

/** @throws Refusal 404 when there is no such capture, or it is not theirs to plan */
export async function mustPlanCapture(who: Person, captureId: string): Promise<void> {
  const capture = await Capture.findByPk(captureId, { attributes: ['sectionId'] })
  if (!capture) throw nothingHere()
  must(ask(who, 'plan', { kind: 'section', sectionId: capture.sectionId }))
}

/** An edit is undone by whoever may plan for all its sections. @throws Refusal 404 */
export async function mustUndo(who: Person, editId: string): Promise<void> {
  const found = await TimetableEdit.findByPk(editId, { attributes: ['sectionIds'] })
  if (!found) throw nothingHere()
  for (const sectionId of found.sectionIds) must(ask(who, 'plan', { kind: 'section', sectionId }))
}
