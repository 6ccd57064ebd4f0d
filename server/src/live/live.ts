import type { Request, Response } from 'express'
import pg from 'pg'
import type { Signed } from '../http/routes'

interface Open {
  org: string
  session: string
}

/** How long after the connection is lost it is tried again. */
const again_ms = 500
const beat_ms = 20_000

/**
 * Tells open screens what changed. The database says it to every server process (LISTEN), each passes it on to the
 * screens that hang on it, each only to its own organisation, and only while its session holds.
 */
export class Live {
  private readonly open = new Map<Response, Open>()
  private client: pg.Client | null = null
  private ended = false
  private readonly beat: NodeJS.Timeout

  constructor(
    private readonly url: string,
    private readonly idleHours = 6,
  ) {
    void this.listen()
    this.beat = setInterval(() => {
      for (const res of this.open.keys()) res.write(': here\n\n')
      void this.closeEnded()
    }, beat_ms)
    this.beat.unref()
  }

  private async listen(): Promise<void> {
    if (this.ended) return
    const client = new pg.Client({ connectionString: this.url, connectionTimeoutMillis: 2000, keepAlive: true })
    const again = () => {
      if (this.client !== client) return
      this.client = null
      void client.end().catch(() => {})
      setTimeout(() => void this.listen(), again_ms).unref()
    }
    this.client = client
    client.on('error', again)
    client.on('end', again)
    client.on('notification', (n) => {
      if (n.channel === 'geolabe_session') return this.close((o) => o.session === n.payload)
      const { org, about } = JSON.parse(n.payload ?? '{}') as { org: string; about: string }
      for (const [res, theirs] of this.open) if (theirs.org === org) res.write(`data: ${about}\n\n`)
    })
    try {
      await client.connect()
      await client.query('listen geolabe')
      await client.query('listen geolabe_session')
      // Whatever was missed while away is read afresh.
      for (const res of this.open.keys()) res.write('data: everything\n\n')
    } catch {
      again()
    }
  }

  private close(which: (o: Open) => boolean): void {
    for (const [res, o] of this.open) {
      if (!which(o)) continue
      this.open.delete(res)
      res.end()
    }
  }

  /** A session may end by time as well as by a word. */
  private async closeEnded(): Promise<void> {
    const hashes = [...new Set([...this.open.values()].map((o) => o.session))]
    if (hashes.length === 0 || !this.client) return
    try {
      const r = await this.client.query<{ sessions_alive: string }>('select geolabe.sessions_alive($1, $2)', [
        hashes,
        `${this.idleHours} hours`,
      ])
      const alive = new Set(r.rows.map((x) => x.sessions_alive))
      this.close((o) => !alive.has(o.session))
    } catch {
      // The connection is gone; the next beat asks again.
    }
  }

  readonly serve = (req: Request, res: Response): void => {
    const { who, session } = req as Signed
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' })
    res.write(': here\n\n')
    this.open.set(res, { org: who.org, session })
    req.on('close', () => this.open.delete(res))
    res.on('error', () => this.open.delete(res))
  }

  async end(): Promise<void> {
    this.ended = true
    clearInterval(this.beat)
    this.close(() => true)
    const client = this.client
    this.client = null
    await client?.end().catch(() => {})
  }
}
