import type { RunwayPart } from '../parts/runway'
import type { Truck } from '../truck/balance'
import { liftsOnOutriggers } from './crane'
import type { Machine } from './machine'

/** A truck of which more is known than its plate: how it stands and drives. */
export type TruckMachine = Machine & { truck: Truck }

export const isTruck = (m: Machine): m is TruckMachine => m.truck?.chassis !== undefined && m.boom === undefined

/** A hoist under a beam of which more is known than its marks: how it hangs and travels. */
export type RunwayMachine = Machine & { runway: RunwayPart }

export const isRunway = (m: Machine): m is RunwayMachine =>
  m.runway?.travel !== undefined && m.boom === undefined && m.truck === undefined

/** Is it set up and proved, and not only ticked through? */
export const isProvable = (m: Machine): boolean => liftsOnOutriggers(m) || isTruck(m) || isRunway(m)
