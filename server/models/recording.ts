/** The thing people watch. Exists from the moment its capture starts. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Recording extends Model<InferAttributes<Recording>, InferCreationAttributes<Recording>> {
  declare id: CreationOptional<string>
  declare captureId: CreationOptional<string | null>
  declare ownerId: string
  declare name: string
  declare state: 'recording' | 'coming_in' | 'being_made' | 'ready' | 'failed'
  declare trouble: CreationOptional<string>
  declare durationS: CreationOptional<number | null>
  declare storePrefix: CreationOptional<string | null>
  declare hasCamera: CreationOptional<boolean>
  declare hasPicture: CreationOptional<boolean>
  declare level: CreationOptional<object | null>
  declare createdAt: Date
}

Recording.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  captureId: DataTypes.UUID,
  ownerId: DataTypes.UUID,
  name: DataTypes.TEXT,
  state: DataTypes.TEXT,
  trouble: DataTypes.TEXT,
  durationS: DataTypes.DOUBLE,
  storePrefix: DataTypes.TEXT,
  hasCamera: DataTypes.BOOLEAN,
  hasPicture: DataTypes.BOOLEAN,
  level: DataTypes.JSONB,
  createdAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'recordings' })
