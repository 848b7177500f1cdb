/** Somebody the campus knows; `subject` is the sign-in's name for them. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Person extends Model<InferAttributes<Person>, InferCreationAttributes<Person>> {
  declare id: CreationOptional<string>
  declare subject: string
  declare name: string
  declare email: string
  declare role: 'staff' | 'instructor' | 'student'
  declare barred: CreationOptional<boolean>
  declare lastSignInAt: CreationOptional<Date | null>
  /** the registry's own id */
  declare sourceId: CreationOptional<string | null>
}

Person.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  subject: DataTypes.TEXT,
  name: DataTypes.TEXT,
  email: DataTypes.TEXT,
  role: DataTypes.TEXT,
  barred: DataTypes.BOOLEAN,
  lastSignInAt: DataTypes.DATE,
  sourceId: DataTypes.TEXT,
}, { sequelize: database, tableName: 'people' })
