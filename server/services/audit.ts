/** The record of who did what. Written in the transaction of the deed itself. */
import type { Transaction } from 'sequelize'
import { campusDate } from '../adapters/clock'
import { AuditEntry } from '../models/audit'

export type Deed = 'released' | 'held' | 'placed' | 'placement met' | 'renamed' | 'planned' | 'making cancelled' | 'making asked again' | 'signed in' | 'signed out' | 'class data taken in' | 'set up'

export async function record(transaction: Transaction, actorId: string | null, action: Deed, subjectId: string, detail: object = {}): Promise<void> {
  await AuditEntry.create({ at: campusDate(), actorId, action, subjectId, detail }, { transaction })
}
