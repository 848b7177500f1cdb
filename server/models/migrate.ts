/** Brings the database up to date. Safe to call from any number of processes at once. */
import pg from 'pg'
import { SequelizeStorage, Umzug } from 'umzug'
import { runMigrations } from 'graphile-worker'
import { database, databaseUrl } from './database'
import * as house from './migrations/001-house'
import * as plans from './migrations/002-plans'
import * as imports from './migrations/003-imports'
import * as people from './migrations/004-people'

/** In order; a name never changes once it has run anywhere. */
const migrations = [{ name: '001-house', ...house }, { name: '002-plans', ...plans }, { name: '003-imports', ...imports }, { name: '004-people', ...people }]

/** Any fixed number: processes that start together take turns behind it. */
const LOCK = 710_224

/** Runs the migrations that have not run yet, ours and the queue's. @returns their names */
export async function migrate(): Promise<string[]> {
  const client = new pg.Client({ connectionString: databaseUrl() })
  await client.connect()
  try {
    await client.query('SELECT pg_advisory_lock($1)', [LOCK])
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up, down }) => ({
        name,
        up: () => database.transaction((transaction) => database.query(up, { transaction })),
        down: () => database.query(down),
      })),
      storage: new SequelizeStorage({ sequelize: database, tableName: 'migrations' }),
      logger: undefined,
    })
    const ran = await umzug.up()
    await runMigrations({ connectionString: databaseUrl() })
    return ran.map((m) => m.name)
  } finally {
    await client.end()
  }
}
