/** A room and what it can take in. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import { database } from './database'

export class Room extends Model<InferAttributes<Room>, InferCreationAttributes<Room>> {
  declare id: CreationOptional<string>
  declare name: string
  declare seats: number
  declare inputs: string[]
  declare turnaroundMinutes: number
  declare building: CreationOptional<string>
  declare openToInstructors: CreationOptional<boolean>
  declare retired: CreationOptional<boolean>
}

Room.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  name: DataTypes.TEXT,
  seats: DataTypes.INTEGER,
  inputs: DataTypes.ARRAY(DataTypes.TEXT),
  turnaroundMinutes: DataTypes.INTEGER,
  building: DataTypes.TEXT,
  openToInstructors: DataTypes.BOOLEAN,
  retired: DataTypes.BOOLEAN,
}, { sequelize: database, tableName: 'rooms' })
