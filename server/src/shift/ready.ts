import type { Tx } from '../db/database'
import { Problem } from '../http/problem'
import { ownOpenShift } from './read'

/** A lift needs a finished walk-round, a site fit for it and a machine that is not stopped. */
export async function requireReady(tx: Tx, shift: string): Promise<{ machine: string; place: string }> {
  const s = await ownOpenShift(tx, shift)
  const r = await tx.query<{ walked: boolean; fit: boolean | null; stopped: boolean }>(
    "select walk_finished_at is not null as walked, (site->>'fit')::boolean as fit, machine_stopped(org, machine) as stopped from shift where id = $1",
    [shift],
  )
  const state = r.rows[0]
  if (state?.stopped)
    throw new Problem(409, 'machine-stopped', 'This machine is stopped. Make it stand without risk; nothing is lifted.')
  if (!state?.walked) throw new Problem(409, 'not-walked', 'Finish the walk-round first.')
  if (!state.fit) throw new Problem(409, 'site-not-fit', 'Look at the site first; every hazard needs its control.')
  return s
}
