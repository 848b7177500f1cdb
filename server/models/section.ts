/** One section of a course in one term. Its folder is made by the database with it. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Section extends Model<InferAttributes<Section>, InferCreationAttributes<Section>> {
  declare id: CreationOptional<string>
  declare courseId: string
  declare termId: string
  declare number: string
  /** the registry's own id */
  declare sourceId: CreationOptional<string | null>
}

Section.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  courseId: DataTypes.UUID,
  termId: DataTypes.UUID,
  number: DataTypes.TEXT,
  sourceId: DataTypes.TEXT,
}, { sequelize: database, tableName: 'sections' })
