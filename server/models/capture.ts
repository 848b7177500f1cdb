/** One dated capture in one room. `held` (capture and turnaround) is set and kept apart by the database. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { CaptureState } from '~~/core/capture/states'
import type { OwnField } from '~~/core/timetable/change'
import { database } from './database'

export class Capture extends Model<InferAttributes<Capture>, InferCreationAttributes<Capture>> {
  declare id: CreationOptional<string>
  declare sectionId: string
  declare roomId: string
  declare presenterId: string
  declare topic: CreationOptional<string>
  declare startsAt: Date
  declare endsAt: Date
  declare inputs: string[]
  declare state: CreationOptional<CaptureState>
  declare lectureNumber: CreationOptional<number | null>
  declare plannedBy: CreationOptional<string | null>
  declare revision: CreationOptional<number>
  declare planId: CreationOptional<string | null>
  declare planDate: CreationOptional<string | null>
  /** what was changed by hand for this date alone */
  declare own: CreationOptional<OwnField[]>
}

Capture.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  sectionId: DataTypes.UUID,
  roomId: DataTypes.UUID,
  presenterId: DataTypes.UUID,
  topic: DataTypes.TEXT,
  startsAt: DataTypes.DATE,
  endsAt: DataTypes.DATE,
  inputs: DataTypes.ARRAY(DataTypes.TEXT),
  state: DataTypes.TEXT,
  lectureNumber: DataTypes.INTEGER,
  plannedBy: DataTypes.UUID,
  revision: DataTypes.INTEGER,
  planId: DataTypes.UUID,
  planDate: DataTypes.DATEONLY,
  own: DataTypes.ARRAY(DataTypes.TEXT),
}, { sequelize: database, tableName: 'captures' })
