/** The one Sequelize instance of a process, from `DATABASE_URL`. */
import pg from 'pg'
import { Sequelize } from 'sequelize'

// count(*) and sums come as 64-bit integers; ours stay far below 2^53.
pg.types.setTypeParser(20, Number)

export const databaseUrl = (): string => {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: npm start sets it, or see the README for several machines')
  return url
}

export const database = new Sequelize(process.env.DATABASE_URL ?? 'postgres://unset', {
  dialect: 'postgres',
  dialectModule: pg,
  logging: false,
  pool: { max: Number(process.env.DATABASE_POOL ?? 12), min: 1, idle: 20_000 },
  define: { underscored: true, timestamps: false, freezeTableName: true },
})
