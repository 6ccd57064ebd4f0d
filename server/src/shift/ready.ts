import { barsTo, itemsOf } from '@geolabe/core'
import type { Tx } from '../db/database'
import { Problem } from '../http/problem'
import { readMe } from '../session/session'
import { machineNamed } from '../yard/yard'
import { ownOpenShift } from './read'

/** What keeps a person from working on: a licence may run out, or a key be withdrawn, while the shift is under way. */
export async function requireStillMay(tx: Tx, machineId: string): Promise<void> {
  const [me, machine] = [await readMe(tx), await machineNamed(tx, machineId)]
  const bars = barsTo(me, machine, new Date().toISOString().slice(0, 10))
  if (bars.length > 0) {
    throw new Problem(
      403,
      'may-not-operate',
      `${me.name} may no longer operate ${machine.name}. Stow it and hand over.`,
      '',
      bars,
    )
  }
}

/** A lift needs a finished walk-round, a site fit for it, a person who still may, and a machine that is not stopped. */
export async function requireReady(tx: Tx, shift: string): Promise<{ machine: string; place: string }> {
  const s = await ownOpenShift(tx, shift)
  const r = await tx.query<{ walked: boolean; raised: boolean; fit: boolean | null; stopped: boolean; absent: boolean }>(
    `select i.finished_at is not null as walked, i.raised_at is not null as raised, (s.site->>'fit')::boolean as fit,
      machine_stopped(s.org, s.machine) as stopped,
      exists (select from inspection a where a.org = s.org and a.shift = s.id and a.time = 'absence' and a.finished_at is null) as absent
     from shift s left join inspection i on i.org = s.org and i.id = s.id where s.id = $1`,
    [shift],
  )
  const state = r.rows[0]
  if (state?.stopped)
    throw new Problem(409, 'machine-stopped', 'This machine is stopped. Make it stand without risk; nothing is lifted.')
  if (!state?.walked) throw new Problem(409, 'not-walked', 'Finish the walk-round first.')
  if (!state.fit) throw new Problem(409, 'site-not-fit', 'Look at the site first; every hazard needs its control.')
  if (state.absent) throw new Problem(409, 'not-walked', 'You left the machine: finish the round after the absence first.')
  await requireStillMay(tx, s.machine)
  return s
}

/** Whether what waits for overhead, people and legs has been proved. */
export async function requireRaised(tx: Tx, shift: string, machineId: string): Promise<void> {
  const machine = await machineNamed(tx, machineId)
  if (!itemsOf(machine.walkround).some((x) => x.zone.part === 'raised')) return
  const r = await tx.query<{ raised: boolean }>('select raised_at is not null as raised from inspection where id = $1', [shift])
  if (!r.rows[0]?.raised) {
    throw new Problem(409, 'not-proved-raised', 'Prove the functions over their travel first: the second part of the walk-round.')
  }
}
