import { type Place, project } from '@geolabe/core'
import type { Tx } from '../db/database'
import { notFound } from '../http/routes'
import { revisionOf } from '../library/documents'
import { machineTaken } from '../library/machine'
import { eventsOf } from '../shift/read'

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
    place: await revisionOf<Place>(tx, 'place_revision', place.id, place.revision),
  }
}
