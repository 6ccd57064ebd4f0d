import type { ProveRequest } from '@geolabe/contract'
import { assess } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { version } from '../version'
import { machineNamed, placeNamed, tablesOf } from '../yard/yard'

/**
 * The assessment that counts is made here, from what the database holds, with the same function that the screen used; with
 * the versions of all that went in, so that it can be computed again years later.
 */
export async function assessOnServer(tx: Tx, shift: { id: string; machine: string; place: string }, b: ProveRequest) {
  // Only this shift's own set-up: how a machine stood on another day proves nothing.
  const r = await tx.query<{ plan: Parameters<typeof assess>[2] }>('select plan from setup where id = $1 and shift = $2', [
    b.setup,
    shift.id,
  ])
  const setup = r.rows[0]?.plan
  if (!setup) throw notFound('This set-up')
  const machine = await machineNamed(tx, shift.machine)
  const tables = await tablesOf(tx, shift.machine)
  const { policy } = await placeNamed(tx, shift.place)
  return {
    policy,
    assessment: assess(machine, tables, setup, b.plan, b.conditions, policy),
    versions: {
      geolabe: version,
      machine: { id: machine.id, revision: machine.revision },
      tables: tables.map((t) => ({ id: t.id, revision: t.revision })),
    },
  }
}
