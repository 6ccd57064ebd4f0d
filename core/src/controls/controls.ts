import { z } from 'zod'
import { motionName } from '../parts/drives'

/** Which motion a lever's way moves, and which way that is: slew left, boom up, out, hoist up are positive. */
const moves = z.strictObject({
  motion: motionName,
  sense: z.union([z.literal(1), z.literal(-1)]),
  /** By the name that stands on the machine; two ways of one lever are two of its axes. */
  lever: z.string().min(1),
  /** Which lever that is, from the left. */
  stands: z.int().min(1).max(20),
  way: z.enum(['forward', 'back', 'left', 'right', 'up', 'down']),
})

/** One entry of a machine's map of controls. */
export const control = z.strictObject({
  /** What it does, in the same words on every machine: “Slew left”. */
  does: z.string().min(1),
  /** What is moved, and which way. */
  by: z.string().min(1),
  moves: moves.optional(),
})
export type Control = z.infer<typeof control>

/** Every stop on a machine: what it kills, what must be reset or linked again. */
export const stopControl = z.strictObject({ label: z.string().min(1), kills: z.string().min(1), reset: z.string().min(1) })
export type StopControl = z.infer<typeof stopControl>

export interface ShownControl extends Control {
  /** How the same thing was done on the machine last driven; null: there, it was the same or not there. */
  was: string | null
  /** Not on the machine last driven at all. */
  fresh: boolean
}

/** This machine's controls, with what differs from those last used. Without any, nothing is marked. */
export function controlsAgainst(own: readonly Control[], last: readonly Control[] | null): ShownControl[] {
  return own.map((c) => {
    const before = last?.find((l) => l.does === c.does)
    return { ...c, was: before && before.by !== c.by ? before.by : null, fresh: last !== null && !before }
  })
}
