/** A sign-in. The cookie holds a sealed token; here lies only its hash. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Session extends Model<InferAttributes<Session>, InferCreationAttributes<Session>> {
  declare id: CreationOptional<string>
  declare tokenHash: string
  declare personId: string
  declare idToken: CreationOptional<string | null>
  declare beganAt: Date
  declare expiresAt: Date
  declare endedAt: CreationOptional<Date | null>
}

Session.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  tokenHash: DataTypes.TEXT,
  personId: DataTypes.UUID,
  idToken: DataTypes.TEXT,
  beganAt: DataTypes.DATE,
  expiresAt: DataTypes.DATE,
  endedAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'sessions' })
