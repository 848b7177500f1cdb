/** What a section settles for everything captured in it. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class SectionDefault extends Model<InferAttributes<SectionDefault>, InferCreationAttributes<SectionDefault>> {
  declare sectionId: string
  declare release: CreationOptional<'held' | 'class list'>
  declare opensDays: CreationOptional<number | null>
  declare closesDays: CreationOptional<number | null>
  declare captions: CreationOptional<boolean>
  declare folderPattern: CreationOptional<string>
  declare told: CreationOptional<string[]>
}

SectionDefault.init({
  sectionId: { type: DataTypes.UUID, primaryKey: true },
  release: { type: DataTypes.TEXT, defaultValue: 'held' },
  opensDays: DataTypes.INTEGER,
  closesDays: DataTypes.INTEGER,
  captions: { type: DataTypes.BOOLEAN, defaultValue: false },
  folderPattern: { type: DataTypes.TEXT, defaultValue: '' },
  told: { type: DataTypes.ARRAY(DataTypes.UUID), defaultValue: [] },
}, { sequelize: database, tableName: 'section_defaults' })
