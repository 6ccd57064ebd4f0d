import type { SignalId } from '../hand-signals/hand-signal'
import type { MotionName } from '../parts/drives'

/** A motion of the load; of slewing, positive is to the operator’s left. */
export interface Way {
  motion: Extract<MotionName, 'hoist' | 'slew'>
  sense: 1 | -1
}
/** What is asked of the levers. */
export type Wanted = Way | 'stop' | 'nothing'

/** What each signal asks. Whoever signals faces the operator: their right is the operator’s left. */
export const wantedBy: Readonly<Record<SignalId, Wanted>> = {
  attention: 'nothing',
  hoist: { motion: 'hoist', sense: 1 },
  lower: { motion: 'hoist', sense: -1 },
  right: { motion: 'slew', sense: 1 },
  left: { motion: 'slew', sense: -1 },
  stop: 'stop',
  emergency: 'stop',
  end: 'nothing',
}

/** Signals that move a load. */
export const movingSignals = ['hoist', 'lower', 'right', 'left'] as const satisfies readonly SignalId[]
