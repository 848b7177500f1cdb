/** What one person has watched of one recording: spans in seconds, and the place to go on. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Viewing extends Model<InferAttributes<Viewing>, InferCreationAttributes<Viewing>> {
  declare id: CreationOptional<string>
  declare recordingId: string
  declare personId: string
  declare placementId: CreationOptional<string | null>
  declare positionS: CreationOptional<number>
  declare spans: CreationOptional<[number, number][]>
  declare seenAt: Date
}

Viewing.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  recordingId: DataTypes.UUID,
  personId: DataTypes.UUID,
  placementId: DataTypes.UUID,
  positionS: DataTypes.DOUBLE,
  spans: DataTypes.JSONB,
  seenAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'viewings' })
