import pg from 'pg'

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

export class Database {
  readonly pool: pg.Pool

  constructor(readonly url: string) {
    this.pool = new pg.Pool({ connectionString: url, max: 12, connectionTimeoutMillis: 4000, options: '-c search_path=geolabe' })
    // A connection that dies while idle is replaced at the next use; without a listener it would end the process.
    this.pool.on('error', () => {})
  }

  /** Runs work in a transaction that row-level security confines to `who.org`. */
  async as<T>(who: Who, work: (tx: Tx) => Promise<T>): Promise<T> {
    const client = await this.pool.connect()
    let broken: Error | undefined
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
