/** A file as it arrived; never changed. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class SourceFile extends Model<InferAttributes<SourceFile>, InferCreationAttributes<SourceFile>> {
  declare id: CreationOptional<string>
  declare recordingId: string
  declare uploadId: string
  declare name: string
  declare bytes: number
  declare storeKey: string
  declare probe: CreationOptional<object | null>
  declare arrivedAt: Date
}

SourceFile.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  recordingId: DataTypes.UUID,
  uploadId: DataTypes.TEXT,
  name: DataTypes.TEXT,
  bytes: DataTypes.BIGINT,
  storeKey: DataTypes.TEXT,
  probe: DataTypes.JSONB,
  arrivedAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'source_files' })
