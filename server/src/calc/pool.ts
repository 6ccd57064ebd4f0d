import { fileURLToPath } from 'node:url'
import pLimit from 'p-limit'
import { Problem } from '../problem/problem'
import { BoundedPool } from '../work/bounded-pool'
import type { CalcJob } from './calc.worker'

/** Calculators, and lifts that came from elsewhere, are worked out beside the server, so that no calculation holds up a lift; what takes longer is ended and refused. */
export const calcPool = (limit_ms = 4000) =>
  new BoundedPool<CalcJob, object | null>({
    filename: fileURLToPath(new URL('./worker-entry.mjs', import.meta.url)),
    runtime: 'worker_threads',
    workers: 2,
    waiting: 200,
    limit_ms,
    busy: 'Too many calculations are waiting here; ask again in a moment.',
    overdue: () =>
      new Problem(422, 'too-heavy', 'This takes too long to work out; ask for fewer cells, steps, poses or ± figures at once.'),
  })
export type CalcPool = ReturnType<typeof calcPool>

/** What takes longer than a sum: so long, on a busy machine too; so many may wait. */
const [slow_ms, slowWaiting] = [20_000, 20]

/** A yard, or a file of orders: one at a time, so that a worker is left for the sums. */
export function slowWork(pool: CalcPool): SlowWork {
  const gate = pLimit(1)
  return <T>(job: CalcJob) => {
    if (gate.pendingCount >= slowWaiting)
      throw new Problem(503, 'busy', 'Others are asking for as much now; ask again in a moment.')
    return gate(() => pool.run(job, slow_ms)) as Promise<T | null>
  }
}
export type SlowWork = <T>(job: CalcJob) => Promise<T | null>
