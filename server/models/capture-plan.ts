/** A capture plan: the rule, and what its captures have in common. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { Until, Weeks } from '~~/core/timetable/rule'
import { database } from './database'

export class CapturePlan extends Model<InferAttributes<CapturePlan>, InferCreationAttributes<CapturePlan>> {
  declare id: CreationOptional<string>
  declare termId: string
  declare sectionId: string
  declare roomId: string
  declare presenterId: string
  declare title: string
  declare inputs: string[]
  /** people told of changes, besides the presenter */
  declare told: string[]
  declare weekdays: number[]
  declare start: string
  declare minutes: number
  declare weeks: Weeks
  declare fromDay: string | null
  declare until: Until
  declare leftOut: string[]
  declare plannedBy: string | null
  declare ended: CreationOptional<boolean>
  /** the timetable it came from, and its name there */
  declare sourceId: CreationOptional<string | null>
  declare sourceKey: CreationOptional<string | null>
}

CapturePlan.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  termId: DataTypes.UUID,
  sectionId: DataTypes.UUID,
  roomId: DataTypes.UUID,
  presenterId: DataTypes.UUID,
  title: DataTypes.TEXT,
  inputs: DataTypes.ARRAY(DataTypes.TEXT),
  told: DataTypes.ARRAY(DataTypes.UUID),
  weekdays: DataTypes.ARRAY(DataTypes.INTEGER),
  start: DataTypes.TEXT,
  minutes: DataTypes.INTEGER,
  weeks: DataTypes.JSONB,
  fromDay: DataTypes.DATEONLY,
  until: DataTypes.JSONB,
  leftOut: DataTypes.ARRAY(DataTypes.DATEONLY),
  plannedBy: DataTypes.UUID,
  sourceId: DataTypes.UUID,
  sourceKey: DataTypes.TEXT,
  ended: { type: DataTypes.BOOLEAN, defaultValue: false },
}, { sequelize: database, tableName: 'capture_plans' })
