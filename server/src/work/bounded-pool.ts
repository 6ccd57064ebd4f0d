import pLimit from 'p-limit'
import { Tinypool } from 'tinypool'
import { Problem } from '../problem/problem'

export interface PoolOptions {
  /** A module whose default export does the work. */
  filename: string
  /** Threads of this process, or processes of their own where what is run would share its input and output threads with us. */
  runtime: 'worker_threads' | 'child_process'
  workers: number
  /** How many may wait; the next one is sent away with a word. */
  waiting: number
  limit_ms: number
  /** Told to whoever waits behind too many. */
  busy: string
  /** Told when the limit is passed; what was begun is ended with its worker. */
  overdue: () => Problem
}

/**
 * Work that nobody else has to wait for: so many at once, so many waiting, each with a time limit that counts from when it is begun.
 * Whatever one piece of work does, the pool goes on: a worker that is ended or dies is begun anew.
 */
export class BoundedPool<I, O> {
  private readonly pool: Tinypool
  private readonly gate: ReturnType<typeof pLimit>
  /** A worker that is just being begun is not counted against the next piece of work. */
  private warm: Promise<unknown>

  constructor(private readonly options: PoolOptions) {
    this.pool = new Tinypool({
      filename: options.filename,
      runtime: options.runtime,
      minThreads: options.workers,
      maxThreads: options.workers,
      idleTimeout: 3_600_000,
      ...(options.runtime === 'child_process' ? { serialization: 'advanced' as const } : {}),
    })
    this.gate = pLimit(options.workers)
    this.warm = this.begin()
  }

  private begin(): Promise<unknown> {
    return this.pool.run(null).catch(() => {})
  }

  /**
   * @param limit_ms of this piece of work; left out: the pool's own
   * @throws Problem 503 when too many wait, the pool's own refusal when it takes too long; and what the work itself throws.
   */
  async run(input: I, limit_ms = this.options.limit_ms): Promise<O> {
    if (this.gate.pendingCount >= this.options.waiting) throw new Problem(503, 'busy', this.options.busy)
    return this.gate(async () => {
      await this.warm
      const stop = new AbortController()
      const timer = setTimeout(() => stop.abort(), limit_ms)
      try {
        return (await this.pool.run({ input }, { signal: stop.signal })) as O
      } catch (e) {
        if (!stop.signal.aborted) throw e
        this.warm = this.begin()
        throw this.options.overdue()
      } finally {
        clearTimeout(timer)
      }
    })
  }

  async end(): Promise<void> {
    await this.pool.destroy().catch(() => {})
  }
}
