/** Reads an import into a dry run, and takes one in that a person has looked over. Killed on the way, either begins anew: nothing half-done stays. */
import { Unreadable } from '../adapters/csv'
import { Import } from '../models/import'
import { compareClassData, takeClassData } from '../services/class-data'
import { Refusal } from '../services/errors'
import { tellImport } from '../services/imports'
import { log } from '../services/log'
import { currentTerm } from '../services/term'
import { dryRun } from '../services/timetable-reading'
import { takeTimetable } from '../services/timetable-taking'

const stepper = (item: Import) => async (percent: number, step: string) => {
  await item.update({ percent, step })
  await tellImport(item.id)
}

/** A sentence for what a person can mend; anything else is ours, and told as such. */
function sentenceOf(error: unknown): string {
  if (error instanceof Unreadable || error instanceof Refusal || error instanceof RangeError) return error.message
  log.error({ err: error }, 'an import stopped')
  return 'Reading stopped for a reason we did not foresee. The file is kept and nothing was written; the team has the reason in the log.'
}

export async function readImport(importId: string): Promise<void> {
  const item = await Import.findByPk(importId)
  if (!item || !['waiting', 'reading'].includes(item.state)) return
  await item.update({ state: 'reading' })
  try {
    const result = item.kind === 'class data' ? await compareClassData(item) : await dryRun(item, stepper(item))
    // What was decided meanwhile has asked for another reading; then this one is old.
    await Import.update({ state: 'looked over', result, percent: 100, step: 'read' }, { where: { id: importId, state: 'reading' } })
  } catch (error) {
    // Dropped while it was being read, it stays dropped.
    await Import.update({ state: 'failed', sentence: sentenceOf(error), endedAt: new Date() }, { where: { id: importId, state: 'reading' } })
  }
  await tellImport(importId)
}

export async function takeImport(importId: string): Promise<void> {
  const item = await Import.findByPk(importId)
  if (item?.state !== 'taking in') return
  try {
    if (item.kind === 'class data') {
      const { sentence } = await takeClassData(item, await zoneNow())
      await item.update({ state: 'taken in', sentence, percent: 100, step: 'taken in', endedAt: new Date() })
    } else {
      const { editId, sentence } = await takeTimetable(item, stepper(item))
      await item.update({ state: 'taken in', sentence, editId, percent: 100, step: 'taken in', endedAt: new Date() })
    }
  } catch (error) {
    // Back to looking over: what was decided is kept, and nothing was written.
    await item.update({ state: 'looked over', sentence: sentenceOf(error), percent: 100, step: 'not taken in' })
  }
  await tellImport(importId)
}

/** New terms are taken to be in the campus's zone. */
const zoneNow = async () => currentTerm().then(({ term }) => term.zone, () => process.env.CAMPUS_ZONE ?? 'Europe/London')
