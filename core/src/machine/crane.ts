import type { HoistPart } from '../parts/hoists/rope'
import type { SlewingParts } from '../parts/stability/slewing'
import type { Outrigger } from '../parts/supports/outriggers'
import type { Machine } from './machine'

/** A machine that has everything a lift on outriggers needs. */
export type Crane = Machine & SlewingParts & { outriggers: Outrigger[]; hoist: HoistPart }

export function liftsOnOutriggers(m: Machine): m is Crane {
  return Boolean(m.boom && m.outriggers && m.hoist && m.upper && m.chassis)
}
