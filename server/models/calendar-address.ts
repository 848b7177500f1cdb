/** A private address under which a calendar program reads a timetable, until it is revoked. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class CalendarAddress extends Model<InferAttributes<CalendarAddress>, InferCreationAttributes<CalendarAddress>> {
  declare id: CreationOptional<string>
  declare tokenHash: string
  declare kind: 'room' | 'section' | 'person'
  declare subjectId: string
  declare ownerId: string
  declare madeAt: Date
  declare readAt: CreationOptional<Date | null>
  declare revokedAt: CreationOptional<Date | null>
}

CalendarAddress.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  tokenHash: DataTypes.TEXT,
  kind: DataTypes.TEXT,
  subjectId: DataTypes.UUID,
  ownerId: DataTypes.UUID,
  madeAt: DataTypes.DATE,
  readAt: DataTypes.DATE,
  revokedAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'calendar_addresses' })
