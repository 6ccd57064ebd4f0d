import { type Machine, type Place, project, type Walkround } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { eventsOf } from '../shift/read'

/** A kept revision of a machine or place. */
export async function revision<T>(tx: Tx, table: 'machine_revision' | 'place_revision', id: string, at: number): Promise<T> {
  const r = await tx.query<{ document: T }>(`select document from ${table} where id = $1 and revision = $2`, [id, at])
  if (!r.rows[0]) throw notFound(`Revision ${at} of ${id}`)
  return r.rows[0].document
}

/** The machine as a shift took it: its own revision, with the walk-round that was in force. */
export async function machineTaken(tx: Tx, shift: string, machine: string): Promise<Machine> {
  const r = await tx.query<{ machine_revision: number; walkround: Walkround | null }>(
    `select s.machine_revision, w.document as walkround from shift s left join walkround_revision w
       on w.org = s.org and w.machine = s.machine and w.revision = s.walkround_revision where s.id = $1`,
    [shift],
  )
  const taken = r.rows[0]
  if (!taken) throw notFound('This shift')
  const document = await revision<Machine>(tx, 'machine_revision', machine, taken.machine_revision)
  return taken.walkround ? { ...document, walkround: taken.walkround } : document
}

/** A lift of a shift with the machine and place that it was proved with. */
export async function liftTaken(tx: Tx, shift: string, id: string) {
  const s = project(await eventsOf(tx, shift))
  const lift = s.lifts.find((l) => l.id === id)
  const setup = s.setups.find((x) => x.id === lift?.setup)
  if (!lift || !setup) throw notFound('This lift')
  const { place } = lift.versions
  return {
    lift: lift.plan,
    setup: setup.plan,
    machine: await machineTaken(tx, shift, s.machine.id),
    place: await revision<Place>(tx, 'place_revision', place.id, place.revision),
  }
}
