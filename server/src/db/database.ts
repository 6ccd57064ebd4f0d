import pg from 'pg'
import { databaseAway } from '../problem/problem'

export interface Who {
  org: string
  person: string
}

/** Queries inside one transaction that belongs to one organisation and person. */
export interface Tx {
  who: Who
  query: <R extends pg.QueryResultRow = pg.QueryResultRow>(text: string, values?: unknown[]) => Promise<pg.QueryResult<R>>
  /** Adds to the journal, in the same transaction as what it tells of. */
  journal: (kind: string, subject: string, body: object) => Promise<void>
}

/** Together they keep every request under five seconds, also when the database hangs rather than dies. */
const limits = {
  /** Waiting for a connection, a new one's greeting included. */
  connectionTimeoutMillis: 1500,
  /** One statement, by the database's clock and by ours. */
  statement_timeout: 2500,
  query_timeout: 2800,
  lock_timeout: 2000,
  idle_in_transaction_session_timeout: 10_000,
} as const

/** Requests that may wait for a connection; the next one is answered at once. */
const mostWaiting = 400

export class Database {
  readonly pool: pg.Pool

  constructor(
    readonly url: string,
    connections = 12,
  ) {
    this.pool = new pg.Pool({
      connectionString: url,
      max: connections,
      keepAlive: true,
      options: '-c search_path=geolabe',
      ...limits,
    })
    // A connection may die while it is idle or while it is being used; without a listener either would end the process. What was
    // asked on it fails by itself, and the pool makes a new one.
    this.pool.on('error', () => {})
    this.pool.on('connect', (client) => client.on('error', () => {}))
  }

  private async connect(): Promise<pg.PoolClient> {
    if (this.pool.waitingCount >= mostWaiting) throw databaseAway()
    return this.pool.connect()
  }

  /** One question outside a transaction. */
  async query<R extends pg.QueryResultRow = pg.QueryResultRow>(text: string, values?: unknown[]): Promise<pg.QueryResult<R>> {
    if (this.pool.waitingCount >= mostWaiting) throw databaseAway()
    return this.pool.query<R>(text, values)
  }

  /** Runs work in a transaction that row-level security confines to `who.org`. */
  async as<T>(who: Who, work: (tx: Tx) => Promise<T>): Promise<T> {
    const client = await this.connect()
    let broken: Error | boolean = false
    try {
      await client.query('begin')
      await client.query("select set_config('app.org', $1, true), set_config('app.person', $2, true)", [who.org, who.person])
      const result = await work({
        who,
        query: (text, values) => client.query(text, values),
        journal: async (kind, subject, body) => {
          await client.query('select journal_append($1, $2, $3)', [kind, subject, JSON.stringify(body)])
        },
      })
      await client.query('commit')
      return result
    } catch (e) {
      // A connection that did not answer is not asked to roll back: it is closed, and the database rolls back by itself.
      if (saysNothing(e)) broken = true
      else
        await client.query('rollback').catch((lost: Error) => {
          broken = lost
        })
      throw e
    } finally {
      client.release(broken)
    }
  }

  async end(): Promise<void> {
    await this.pool.end()
  }
}

/** Our own limit passed, or the connection is gone: nothing more is to be had of it. */
function saysNothing(e: unknown): boolean {
  return e instanceof Error && /query read timeout|connection terminated|connection ended|not queryable/i.test(e.message)
}
