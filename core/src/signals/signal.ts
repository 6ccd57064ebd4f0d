import type { AskedSignal } from '../hand-signals/hand-signal'
import type { MotionName } from '../parts/drives'

/** A motion that is asked for; of slewing, positive is to the operator’s left, of a boom or trolley up or out. */
export interface Way {
  motion: MotionName
  sense: 1 | -1
  /** It moves already, and is to move slower. */
  slow?: true
}
/** What is asked of the levers. */
export type Wanted = Way | 'stop' | 'nothing'

/** Signals that move a load on every machine that answers them. Whoever signals faces the operator: their right is the operator’s left. */
const moving: readonly [AskedSignal, Way][] = [
  ['hoist', { motion: 'hoist', sense: 1 }],
  ['lower', { motion: 'hoist', sense: -1 }],
  ['right', { motion: 'slew', sense: 1 }],
  ['left', { motion: 'slew', sense: -1 }],
]
/** Those of a boom or a trolley: by whichever of these motions a machine has. */
const ofBoom: readonly [AskedSignal, readonly MotionName[], 1 | -1][] = [
  ['boom-up', ['luff'], 1],
  ['boom-down', ['luff'], -1],
  ['out', ['extend', 'trolley'], 1],
  ['in', ['extend', 'trolley'], -1],
]

export interface Move {
  signal: AskedSignal
  way: Way
}

/**
 * The signals that move a load on a machine, and what each asks of its levers.
 *
 * @param motions the rig’s, in any order
 * @example movesOn(['slew', 'trolley', 'hoist']).map((m) => m.signal) // hoist, lower, right, left, out, in
 */
export function movesOn(motions: readonly string[]): Move[] {
  return [
    ...moving.map(([signal, way]) => ({ signal, way })),
    ...ofBoom.flatMap(([signal, by, sense]) => {
      const motion = by.find((m) => motions.includes(m))
      return motion ? [{ signal, way: { motion, sense } }] : []
    }),
  ]
}

/** Whether levers for these motions answer what every machine is asked. */
export const answersAll = (motions: readonly string[]): boolean => moving.every(([, { motion }]) => motions.includes(motion))
