/** What an instructor asked for beyond the team's rules. */
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes } from 'sequelize'
import type { RequestView } from '~~/shared/timetable/requests'
import { database } from './database'

export class PlanRequest extends Model<InferAttributes<PlanRequest>, InferCreationAttributes<PlanRequest>> {
  declare id: CreationOptional<string>
  declare personId: string
  declare sectionId: string
  /** the capture that is to change; null for a new plan */
  declare captureId: string | null
  declare wish: object
  declare words: string
  declare reasons: string[]
  declare note: string
  declare state: CreationOptional<RequestView['state']>
  declare answer: CreationOptional<string>
  declare answeredBy: CreationOptional<string | null>
  declare askedAt: Date
  declare answeredAt: CreationOptional<Date | null>
}

PlanRequest.init({
  id: { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 },
  personId: DataTypes.UUID,
  sectionId: DataTypes.UUID,
  captureId: DataTypes.UUID,
  wish: DataTypes.JSONB,
  words: DataTypes.TEXT,
  reasons: DataTypes.ARRAY(DataTypes.TEXT),
  note: DataTypes.TEXT,
  state: { type: DataTypes.TEXT, defaultValue: 'waiting' },
  answer: { type: DataTypes.TEXT, defaultValue: '' },
  answeredBy: DataTypes.UUID,
  askedAt: DataTypes.DATE,
  answeredAt: DataTypes.DATE,
}, { sequelize: database, tableName: 'plan_requests' })
