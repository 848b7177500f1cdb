/** What the team has settled for the whole campus: one row. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class CampusSettings extends Model<InferAttributes<CampusSettings>, InferCreationAttributes<CampusSettings>> {
  declare theOne: CreationOptional<boolean>
  declare opens: string
  declare closes: string
  declare usualStarts: number[]
  declare instructorsFrom: string
  declare instructorsTo: string
  declare instructorsDaysAhead: number
}

CampusSettings.init({
  theOne: { type: DataTypes.BOOLEAN, primaryKey: true, defaultValue: true },
  opens: DataTypes.TEXT,
  closes: DataTypes.TEXT,
  usualStarts: DataTypes.ARRAY(DataTypes.INTEGER),
  instructorsFrom: DataTypes.TEXT,
  instructorsTo: DataTypes.TEXT,
  instructorsDaysAhead: DataTypes.INTEGER,
}, { sequelize: database, tableName: 'campus_settings' })
