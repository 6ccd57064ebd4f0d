import { Worker } from 'node:worker_threads'
import { Problem } from '../http/problem'
import type { CalcDone, CalcJob } from './calc.worker'

interface Waiting extends CalcJob {
  resolve: (answer: object) => void
  reject: (e: unknown) => void
}

/** How many may wait; the next one is sent away with a word. */
const most_waiting = 200

/**
 * Works calculators out beside the server, one after another, so that nobody’s sum holds up anybody’s lift. What takes longer than
 * the limit is ended and refused; the worker is begun anew.
 */
export class CalcPool {
  private worker: Worker | null = null
  private readonly waiting: Waiting[] = []
  private now: Waiting | null = null
  private timer: NodeJS.Timeout | null = null
  /** The worker has loaded; until then no sum’s time is counted. */
  private ready = false
  private count = 0

  constructor(private readonly limit_ms = 4000) {}

  run(name: string, input: unknown): Promise<object> {
    if (this.waiting.length >= most_waiting) {
      throw new Problem(503, 'busy', 'Too many sums are waiting here; ask again in a moment.')
    }
    return new Promise((resolve, reject) => {
      this.waiting.push({ id: ++this.count, name, input, resolve, reject })
      this.next()
    })
  }

  private next(): void {
    if (this.now) return
    const job = this.waiting.shift()
    if (!job) return
    this.now = job
    const worker = this.worker ?? this.begin()
    if (this.ready) this.watch()
    worker.postMessage({ id: job.id, name: job.name, input: job.input } satisfies CalcJob)
  }

  private begin(): Worker {
    const worker = new Worker(new URL('./worker-entry.mjs', import.meta.url))
    // Nothing waits for it when the server ends.
    worker.unref()
    worker.on('message', (said: CalcDone | 'ready') => {
      if (this.worker !== worker) return
      if (said === 'ready') {
        this.ready = true
        if (this.now) this.watch()
        return
      }
      const { id, answer } = said
      if (this.now?.id !== id) return
      const { resolve, reject } = this.now
      this.settle()
      if (answer) resolve(answer)
      else reject(new Error('A calculator failed; see the log.'))
      this.next()
    })
    worker.on('error', (e) => {
      if (this.worker !== worker) return
      this.worker = null
      const failed = this.now
      this.settle()
      failed?.reject(e)
      this.next()
    })
    this.worker = worker
    this.ready = false
    return worker
  }

  private watch(): void {
    this.timer = setTimeout(() => this.overdue(), this.limit_ms)
  }

  private settle(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    this.now = null
  }

  private overdue(): void {
    const late = this.now
    void this.worker?.terminate()
    this.worker = null
    this.settle()
    late?.reject(
      new Problem(422, 'too-heavy', 'This takes too long to work out; ask for fewer cells, steps, poses or ± figures at once.'),
    )
    this.next()
  }
}
