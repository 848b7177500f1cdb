/** One embed: copied at some time, and met on a page when that page first showed it. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Placement extends Model<InferAttributes<Placement>, InferCreationAttributes<Placement>> {
  declare id: CreationOptional<string>
  declare slug: string
  declare filingId: string
  declare kind: 'player' | 'link'
  declare placedBy: string
  declare copiedAt: Date
  declare pageUrl: CreationOptional<string | null>
  declare metAt: CreationOptional<Date | null>
}

Placement.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  slug: DataTypes.TEXT,
  filingId: DataTypes.UUID,
  kind: DataTypes.TEXT,
  placedBy: DataTypes.UUID,
  copiedAt: DataTypes.DATE,
  pageUrl: DataTypes.TEXT,
  metAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'placements' })
