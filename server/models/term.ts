/** A teaching term with its zone and days; see core/term. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Term extends Model<InferAttributes<Term>, InferCreationAttributes<Term>> {
  declare id: CreationOptional<string>
  declare name: string
  declare zone: string
  declare teachingFrom: string
  declare teachingTo: string
  /** the registry's own id */
  declare sourceId: CreationOptional<string | null>
}

Term.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  name: DataTypes.TEXT,
  zone: DataTypes.TEXT,
  teachingFrom: DataTypes.DATEONLY,
  teachingTo: DataTypes.DATEONLY,
  sourceId: DataTypes.TEXT,
}, { sequelize: database, tableName: 'terms' })
