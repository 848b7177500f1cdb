/** The class list may watch a filing, within a window. No row: held. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Release extends Model<InferAttributes<Release>, InferCreationAttributes<Release>> {
  declare id: CreationOptional<string>
  declare filingId: string
  declare opensAt: CreationOptional<Date | null>
  declare closesAt: CreationOptional<Date | null>
  declare releasedBy: string
  declare releasedAt: Date
}

Release.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  filingId: DataTypes.UUID,
  opensAt: DataTypes.DATE,
  closesAt: DataTypes.DATE,
  releasedBy: DataTypes.UUID,
  releasedAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'releases' })
