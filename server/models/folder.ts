/** A folder of a section; the one without a parent is the section's own. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Folder extends Model<InferAttributes<Folder>, InferCreationAttributes<Folder>> {
  declare id: CreationOptional<string>
  declare sectionId: string
  declare parentId: CreationOptional<string | null>
  declare name: string
}

Folder.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  sectionId: DataTypes.UUID,
  parentId: DataTypes.UUID,
  name: DataTypes.TEXT,
}, { sequelize: database, tableName: 'folders' })
