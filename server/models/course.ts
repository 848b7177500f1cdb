/** A course, such as HYD-210 Groundwater Hydrology. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Course extends Model<InferAttributes<Course>, InferCreationAttributes<Course>> {
  declare id: CreationOptional<string>
  declare code: string
  declare title: string
  /** the registry's own id */
  declare sourceId: CreationOptional<string | null>
}

Course.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  code: DataTypes.TEXT,
  title: DataTypes.TEXT,
  sourceId: DataTypes.TEXT,
}, { sequelize: database, tableName: 'courses' })
