import type { ProveRequest } from '@geolabe/contract'
import { assess, type Case } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { machineNamed } from '../library/machine'
import { placeInUse } from '../library/place'
import { tablesOf } from '../library/table'
import { Problem } from '../problem/problem'
import { version } from '../version'

/**
 * The assessment that counts is made here, from what the database holds, with the same function that the screen used; with
 * the versions of all that went in, so that it can be computed again years later.
 */
export async function assessOnServer(tx: Tx, shift: { id: string; machine: string; place: string }, b: ProveRequest) {
  // Only this shift's own set-up: how a machine stood on another day proves nothing.
  const r = await tx.query<{ plan: Case['setup']; stands: boolean }>(
    'select u.plan, (s.moved_at is null or u.at > s.moved_at) as stands from setup u join shift s on s.org = u.org and s.id = u.shift where u.id = $1 and u.shift = $2',
    [b.setup, shift.id],
  )
  const setup = r.rows[0]?.plan
  if (!setup) throw notFound('This set-up')
  if (!r.rows[0]?.stands)
    throw new Problem(409, 'set-up-changed', 'The machine has moved since this set-up. Set it up where it stands now.', 'setup')
  const machine = await machineNamed(tx, shift.machine)
  const tables = await tablesOf(tx, shift.machine)
  const place = await placeInUse(tx, shift.place)
  const { policy } = place.document
  return {
    policy,
    assessment: assess({ machine, tables, setup, lift: b.plan, conditions: b.conditions, place: place.document, policy }),
    versions: {
      geolabe: version,
      machine: { id: machine.id, revision: machine.revision },
      place: { id: shift.place, revision: place.revision },
      tables: tables.map((t) => ({ id: t.id, revision: t.revision })),
    },
  }
}
