/** One line of a class list: who is in a section, as what, from when until when. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class ClassListEntry extends Model<InferAttributes<ClassListEntry>, InferCreationAttributes<ClassListEntry>> {
  declare id: CreationOptional<string>
  declare sectionId: string
  declare personId: string
  declare role: 'instructor' | 'assistant' | 'student'
  declare fromAt: CreationOptional<Date | null>
  declare toAt: CreationOptional<Date | null>
  /** the registry's own id */
  declare sourceId: CreationOptional<string | null>
}

ClassListEntry.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  sectionId: DataTypes.UUID,
  personId: DataTypes.UUID,
  role: DataTypes.TEXT,
  fromAt: DataTypes.DATE,
  toAt: DataTypes.DATE,
  sourceId: DataTypes.TEXT,
}, { sequelize: database, tableName: 'class_list' })
