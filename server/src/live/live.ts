import type { Request, Response } from 'express'
import pg from 'pg'
import { whoOf } from '../http/routes'

/**
 * Tells open screens what changed. The database says it to every server process (LISTEN), each passes it on to the
 * screens that hang on it, each only to its own organisation.
 */
export class Live {
  private readonly open = new Map<Response, string>()
  private client: pg.Client | null = null
  private ended = false
  private readonly beat: NodeJS.Timeout

  constructor(private readonly url: string) {
    void this.listen()
    this.beat = setInterval(() => {
      for (const res of this.open.keys()) res.write(': here\n\n')
    }, 20_000)
    this.beat.unref()
  }

  private async listen(): Promise<void> {
    if (this.ended) return
    const client = new pg.Client({ connectionString: this.url })
    const again = () => {
      if (this.client !== client) return
      this.client = null
      setTimeout(() => void this.listen(), 1000).unref()
    }
    this.client = client
    client.on('error', again)
    client.on('end', again)
    client.on('notification', (n) => {
      const { org, about } = JSON.parse(n.payload ?? '{}') as { org: string; about: string }
      for (const [res, theirs] of this.open) if (theirs === org) res.write(`data: ${about}\n\n`)
    })
    try {
      await client.connect()
      await client.query('listen geolabe')
      // Whatever was missed while away is read afresh.
      for (const res of this.open.keys()) res.write('data: everything\n\n')
    } catch {
      again()
    }
  }

  readonly serve = (req: Request, res: Response): void => {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' })
    res.write(': here\n\n')
    this.open.set(res, whoOf(req).org)
    req.on('close', () => this.open.delete(res))
  }

  async end(): Promise<void> {
    this.ended = true
    clearInterval(this.beat)
    for (const res of this.open.keys()) res.end()
    await this.client?.end().catch(() => {})
  }
}
