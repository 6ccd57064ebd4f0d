import type { HoistPart } from '../parts/hoists/rope'
import type { SlewingParts } from '../parts/stability/slewing'
import type { Outrigger } from '../parts/supports/outriggers'
import type { Machine } from './machine'

/** A machine that lifts on a hook from a boom that turns, whatever it stands on. */
export type Crane = Machine & SlewingParts & { hoist: HoistPart }

/** One that stands on outriggers, by themselves or among other ways. */
export type OutriggerCrane = Crane & { outriggers: Outrigger[] }

export function liftsOnHook(m: Machine): m is Crane {
  return Boolean(m.boom && m.hoist && m.upper && m.chassis && (m.outriggers || m.tower?.base || m.tracks))
}

export const liftsOnOutriggers = (m: Machine): m is OutriggerCrane => liftsOnHook(m) && m.outriggers !== undefined
