/** Something brought in from elsewhere: read, looked over by a person, then taken in or dropped. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { ImportKind, ImportState } from '~~/shared/imports/views'
import { database } from './database'

export class Import extends Model<InferAttributes<Import>, InferCreationAttributes<Import>> {
  declare id: CreationOptional<string>
  declare kind: ImportKind
  declare state: ImportState
  declare name: string
  declare termId: CreationOptional<string | null>
  declare sourceId: CreationOptional<string | null>
  /** file name → key in the store */
  declare storeKeys: { name: string, key: string }[]
  declare options: CreationOptional<object>
  declare result: CreationOptional<object | null>
  declare step: CreationOptional<string>
  declare percent: CreationOptional<number>
  declare sentence: CreationOptional<string>
  declare editId: CreationOptional<string | null>
  declare askedBy: string
  declare askedAt: CreationOptional<Date>
  declare endedAt: CreationOptional<Date | null>
}

Import.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  kind: DataTypes.TEXT,
  state: DataTypes.TEXT,
  name: DataTypes.TEXT,
  termId: DataTypes.UUID,
  sourceId: DataTypes.UUID,
  storeKeys: DataTypes.JSONB,
  options: { type: DataTypes.JSONB, defaultValue: {} },
  result: DataTypes.JSONB,
  step: { type: DataTypes.TEXT, defaultValue: '' },
  percent: { type: DataTypes.DOUBLE, defaultValue: 0 },
  sentence: { type: DataTypes.TEXT, defaultValue: '' },
  editId: DataTypes.UUID,
  askedBy: DataTypes.UUID,
  askedAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
  endedAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'imports' })
