/** A recording's place in a folder; `position` is teaching order. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Filing extends Model<InferAttributes<Filing>, InferCreationAttributes<Filing>> {
  declare id: CreationOptional<string>
  declare folderId: string
  declare recordingId: string
  declare position: number
}

Filing.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  folderId: DataTypes.UUID,
  recordingId: DataTypes.UUID,
  position: DataTypes.DOUBLE,
}, { sequelize: database, tableName: 'filings' })
