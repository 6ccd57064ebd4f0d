import { type HeldStation, holding, impedimentsTo, isProvable, itemsOf, type Machine, type ShiftStanding } from '@geolabe/core'
import type { Tx } from '../db/database'
import { machineNamed } from '../library/machine'
import { Problem } from '../problem/problem'
import { readMe } from '../session/session'
import { ownOpenShift } from './read'

/** What keeps a person from working on: a licence may run out, or a key be withdrawn, while the shift is under way. */
async function requireStillMay(tx: Tx, machine: Machine): Promise<void> {
  const me = await readMe(tx)
  const impediments = impedimentsTo(me, machine, new Date().toISOString().slice(0, 10))
  if (impediments.length > 0) {
    throw new Problem(
      403,
      'may-not-operate',
      `${me.name} may no longer operate ${machine.name}. Stow it and hand over.`,
      '',
      impediments,
    )
  }
}

/** How a shift stands in the records. A set-up or a proof from before the machine moved counts no more. */
async function standingOf(tx: Tx, shift: string, machine: Machine): Promise<ShiftStanding> {
  const r = await tx.query<Omit<ShiftStanding, 'siteFit'> & { siteFit: boolean | null }>(
    `select machine_stopped(s.org, s.machine) as stopped, i.finished_at is not null as walked, i.raised_at is not null as raised,
      (s.site->>'fit')::boolean as "siteFit",
      exists (select from inspection a where a.org = s.org and a.shift = s.id and a.occasion = 'after-absence' and a.finished_at is null) as absent,
      exists (select from setup u where u.org = s.org and u.shift = s.id and (s.moved_at is null or u.at > s.moved_at)) as "setUp",
      coalesce((select jsonb_agg(jsonb_build_object('label', o.after, 'role', o.follow_role) order by o.at) from override_use o
        where o.org = s.org and o.machine = s.machine and o.followed_at is null), '[]') as "followUps"
     from shift s left join inspection i on i.org = s.org and i.id = s.id where s.id = $1`,
    [shift],
  )
  const s = r.rows[0]
  if (!s) throw new Error('a shift that was just read is gone')
  const waits = itemsOf(machine.walkround).some((x) => x.zone.part === 'raised')
  return {
    ...s,
    siteFit: s.siteFit === true,
    setUp: s.setUp || !isProvable(machine),
    raised: s.raised || !waits,
  }
}

/** One rule for every station: what the core says it needs, and a person who still may. */
export async function requireReady(
  tx: Tx,
  shift: string,
  station: HeldStation,
): Promise<{ machine: string; place: string; definition: Machine }> {
  const s = await ownOpenShift(tx, shift)
  const definition = await machineNamed(tx, s.machine)
  const held = holding(station, await standingOf(tx, shift, definition))[0]
  if (held) throw new Problem(409, held.code, held.why)
  if (station !== 'raise') await requireStillMay(tx, definition)
  return { machine: s.machine, place: s.place, definition }
}
