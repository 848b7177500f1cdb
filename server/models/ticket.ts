/** A short-lived way in for one placement's frame, where cookies do not reach. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Ticket extends Model<InferAttributes<Ticket>, InferCreationAttributes<Ticket>> {
  declare id: CreationOptional<string>
  declare tokenHash: string
  declare sessionId: string
  declare placementId: string
  declare expiresAt: Date
}

Ticket.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  tokenHash: DataTypes.TEXT,
  sessionId: DataTypes.UUID,
  placementId: DataTypes.UUID,
  expiresAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'tickets' })
