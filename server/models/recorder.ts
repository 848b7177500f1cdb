/** The recorder fitted in a room, and what it last reported. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Recorder extends Model<InferAttributes<Recorder>, InferCreationAttributes<Recorder>> {
  declare id: CreationOptional<string>
  declare roomId: string
  declare name: string
  declare keyHash: string
  declare lastReportAt: CreationOptional<Date | null>
  declare report: CreationOptional<object | null>
}

Recorder.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  roomId: DataTypes.UUID,
  name: DataTypes.TEXT,
  keyHash: DataTypes.TEXT,
  lastReportAt: DataTypes.DATE,
  report: DataTypes.JSONB,
}, { sequelize: database, tableName: 'recorders' })
