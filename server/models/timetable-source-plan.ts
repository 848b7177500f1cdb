/** What a source said of one plan when it was last taken in: the base against which the next one is compared. */
import { DataTypes, Model, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { Wanted } from '~~/core/timetable/wanted'
import { database } from './database'

export class TimetableSourcePlan extends Model<InferAttributes<TimetableSourcePlan>, InferCreationAttributes<TimetableSourcePlan>> {
  declare sourceId: string
  declare key: string
  declare wanted: Wanted
}

TimetableSourcePlan.init({
  sourceId: { type: DataTypes.UUID, primaryKey: true },
  key: { type: DataTypes.TEXT, primaryKey: true },
  wanted: DataTypes.JSONB,
}, { sequelize: database, tableName: 'timetable_source_plans' })
