/** A message to the team, and its answer. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class HelpMessage extends Model<InferAttributes<HelpMessage>, InferCreationAttributes<HelpMessage>> {
  declare id: CreationOptional<string>
  declare personId: string
  /** what the writer was looking at */
  declare path: string
  declare body: string
  declare writtenAt: Date
  declare answer: CreationOptional<string | null>
  declare answeredBy: CreationOptional<string | null>
  declare answeredAt: CreationOptional<Date | null>
}

HelpMessage.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  personId: DataTypes.UUID,
  path: DataTypes.TEXT,
  body: DataTypes.TEXT,
  writtenAt: DataTypes.DATE,
  answer: DataTypes.TEXT,
  answeredBy: DataTypes.UUID,
  answeredAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'help_messages' })
