import type { GantryPart } from '../parts/gantry'
import type { StraddlePart } from '../parts/hoists/straddle'
import type { RunwayPart } from '../parts/runway'
import type { Truck } from '../truck/balance'
import { liftsOnHook } from './crane'
import type { Machine } from './machine'

/** A truck of which more is known than its plate: how it stands and drives. */
export type TruckMachine = Machine & { truck: Truck }

export const isTruck = (m: Machine): m is TruckMachine => m.truck?.chassis !== undefined && m.boom === undefined

/** A hoist under a beam of which more is known than its marks: how it hangs and travels. */
export type RunwayMachine = Machine & { runway: RunwayPart }

export const isRunway = (m: Machine): m is RunwayMachine =>
  m.runway?.travel !== undefined && m.boom === undefined && m.truck === undefined

/** A gantry of which more is known than its stages: how its towers stand. */
export type GantryMachine = Machine & { gantry: GantryPart }

export const isGantry = (m: Machine): m is GantryMachine => m.gantry?.stand !== undefined && m.boom === undefined

/** A frame astride its load of which more is known than its lines: how it stands and drives. */
export type StraddleMachine = Machine & { hoists: StraddlePart }

export const isStraddle = (m: Machine): m is StraddleMachine => m.hoists?.straddle !== undefined && m.boom === undefined

/** Is it set up and proved, and not only ticked through? */
export const isProvable = (m: Machine): boolean => liftsOnHook(m) || isTruck(m) || isRunway(m) || isGantry(m) || isStraddle(m)
