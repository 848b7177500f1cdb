/** Days of a term without ordinary teaching. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class TermSpan extends Model<InferAttributes<TermSpan>, InferCreationAttributes<TermSpan>> {
  declare id: CreationOptional<string>
  declare termId: string
  declare kind: 'reading' | 'holiday' | 'exams'
  declare fromDay: string
  declare toDay: string
  declare label: string
}

TermSpan.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  termId: DataTypes.UUID,
  kind: DataTypes.TEXT,
  fromDay: DataTypes.DATEONLY,
  toDay: DataTypes.DATEONLY,
  label: DataTypes.TEXT,
}, { sequelize: database, tableName: 'term_spans' })
