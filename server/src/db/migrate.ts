import { fileURLToPath } from 'node:url'
import { runner } from 'node-pg-migrate'
import pg from 'pg'

export interface Owner {
  host: string
  port: number
  user: string
  password: string
}

/** The application sees and writes records; the door looks up who signs on and begins sessions, and nothing else. */
export interface RolePasswords {
  app: string
  door: string
}

/** Makes the application's roles and database where they are missing, then brings the schema up to date. */
export async function migrate(owner: Owner, database: string, passwords: RolePasswords): Promise<void> {
  const admin = new pg.Client({ ...owner, database: 'postgres' })
  await admin.connect()
  try {
    for (const [name, password] of [
      ['geolabe_app', passwords.app],
      ['geolabe_door', passwords.door],
    ] as const) {
      const role = await admin.query('select from pg_roles where rolname = $1', [name])
      const verb = role.rowCount === 0 ? 'create' : 'alter'
      await admin.query(`${verb} role ${name} login nosuperuser nobypassrls password ${pg.escapeLiteral(password)}`)
    }
    const db = await admin.query('select from pg_database where datname = $1', [database])
    if (db.rowCount === 0) await admin.query(`create database ${pg.escapeIdentifier(database)}`)
  } finally {
    await admin.end()
  }
  await runner({
    databaseUrl: { ...owner, database },
    dir: fileURLToPath(new URL('./migrations', import.meta.url)),
    direction: 'up',
    migrationsTable: 'geolabe_migrations',
    log: () => {},
    verbose: false,
  })
}
