/** A piece of long work as people see it in “Under way”; the queue's own job runs it. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Undertaking extends Model<InferAttributes<Undertaking>, InferCreationAttributes<Undertaking>> {
  declare id: CreationOptional<string>
  declare kind: 'making'
  declare recordingId: string
  declare state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  declare step: CreationOptional<string>
  declare percent: CreationOptional<number>
  declare leftS: CreationOptional<number | null>
  declare sentence: CreationOptional<string>
  declare attempts: CreationOptional<number>
  declare askedAt: Date
  declare beganAt: CreationOptional<Date | null>
  declare endedAt: CreationOptional<Date | null>
  declare sizeS: CreationOptional<number | null>
}

Undertaking.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  kind: DataTypes.TEXT,
  recordingId: DataTypes.UUID,
  state: DataTypes.TEXT,
  step: DataTypes.TEXT,
  percent: DataTypes.DOUBLE,
  leftS: DataTypes.DOUBLE,
  sentence: DataTypes.TEXT,
  attempts: DataTypes.INTEGER,
  askedAt: DataTypes.DATE,
  beganAt: DataTypes.DATE,
  endedAt: DataTypes.DATE,
  sizeS: DataTypes.DOUBLE,
}, { sequelize: database, tableName: 'undertakings' })
