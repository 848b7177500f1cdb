/** Where a timetable comes from, again and again: its columns are remembered. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { Mapping } from '~~/core/timetable/rows'
import { database } from './database'

export class TimetableSource extends Model<InferAttributes<TimetableSource>, InferCreationAttributes<TimetableSource>> {
  declare id: CreationOptional<string>
  declare termId: string
  declare name: string
  declare mapping: Mapping
}

TimetableSource.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  termId: DataTypes.UUID,
  name: DataTypes.TEXT,
  mapping: DataTypes.JSONB,
}, { sequelize: database, tableName: 'timetable_sources' })
