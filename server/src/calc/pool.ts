import { fileURLToPath } from 'node:url'
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
