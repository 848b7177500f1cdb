/** One edit of the timetable by one person: what was done in words, and the rows as they were before. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { Wanted } from '~~/core/timetable/wanted'
import { database } from './database'

/** Rows of one table as an edit found them. */
export interface RowsBefore { created: string[], before: Record<string, unknown>[] }
export interface Before {
  captures: RowsBefore
  plans: RowsBefore
  /** captures that stayed as they were and only came under another plan */
  regrouped: { id: string, plan_id: string }[]
  /** what a timetable's source had said before it was brought in: undone, it is compared with that again */
  source?: { id: string, plans: { key: string, wanted: Wanted }[] }
}

export type EditKind = 'planned' | 'changed' | 'cancelled' | 'restored' | 'brought in' | 'rolled over' | 'request accepted'

export class TimetableEdit extends Model<InferAttributes<TimetableEdit>, InferCreationAttributes<TimetableEdit>> {
  declare id: CreationOptional<string>
  /** order of edits; campus time may stand still */
  declare seq: CreationOptional<number>
  declare at: Date
  declare actorId: string | null
  declare kind: EditKind
  declare sentence: string
  declare before: Before
  declare captureIds: string[]
  declare sectionIds: string[]
  declare undoneAt: CreationOptional<Date | null>
  declare undoneBy: CreationOptional<string | null>
}

TimetableEdit.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  seq: { type: DataTypes.BIGINT, autoIncrement: true },
  at: DataTypes.DATE,
  actorId: DataTypes.UUID,
  kind: DataTypes.TEXT,
  sentence: DataTypes.TEXT,
  before: DataTypes.JSONB,
  captureIds: DataTypes.ARRAY(DataTypes.UUID),
  sectionIds: DataTypes.ARRAY(DataTypes.UUID),
  undoneAt: DataTypes.DATE,
  undoneBy: DataTypes.UUID,
}, { sequelize: database, tableName: 'timetable_edits' })
