/** One message to one person about one action. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { NoticeKind } from '~~/shared/notices/views'
import { database } from './database'

export class Notice extends Model<InferAttributes<Notice>, InferCreationAttributes<Notice>> {
  declare id: CreationOptional<string>
  declare personId: string
  declare kind: NoticeKind
  declare editId: CreationOptional<string | null>
  declare subject: string
  declare body: string
  /** address in the application, the same for whoever reads it */
  declare path: string
  declare toldAt: Date
  declare dueAt: Date
  declare inApp: boolean
  declare byMail: boolean
  declare mailedAt: CreationOptional<Date | null>
  declare attempts: CreationOptional<number>
  declare trouble: CreationOptional<string>
  declare readAt: CreationOptional<Date | null>
}

Notice.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  personId: DataTypes.UUID,
  kind: DataTypes.TEXT,
  editId: DataTypes.UUID,
  subject: DataTypes.TEXT,
  body: DataTypes.TEXT,
  path: DataTypes.TEXT,
  toldAt: DataTypes.DATE,
  dueAt: DataTypes.DATE,
  inApp: DataTypes.BOOLEAN,
  byMail: DataTypes.BOOLEAN,
  mailedAt: DataTypes.DATE,
  attempts: { type: DataTypes.INTEGER, defaultValue: 0 },
  trouble: { type: DataTypes.TEXT, defaultValue: '' },
  readAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'notices' })
