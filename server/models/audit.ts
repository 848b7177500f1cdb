/** Who did what to what, and when. Only ever added to. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class AuditEntry extends Model<InferAttributes<AuditEntry>, InferCreationAttributes<AuditEntry>> {
  declare id: CreationOptional<number>
  declare at: Date
  declare actorId: string | null
  declare action: string
  declare subjectId: string
  declare detail: CreationOptional<object>
}

AuditEntry.init({
  id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
  at: DataTypes.DATE,
  actorId: DataTypes.UUID,
  action: DataTypes.TEXT,
  subjectId: DataTypes.UUID,
  detail: DataTypes.JSONB,
}, { sequelize: database, tableName: 'audit' })
