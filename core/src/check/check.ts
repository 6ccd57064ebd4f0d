import type { Finding } from '../finding/finding'
import type { CheckName } from '../finding/reasons'
import type { RemedyName } from '../lift/remedy'
import type { Area, Layer } from './area'
import type { LiftContext } from './context'
import type { GantryContext } from './gantry-context'
import type { RunwayContext } from './runway-context'
import type { StraddleContext } from './straddle-context'
import type { TowContext } from './tow-context'
import type { TruckContext } from './truck-context'

/**
 * One thing that is looked at before a lift. It owns what it finds and which changes can put that right; its sentences stand in
 * `wording/`, one for each of its reasons. Assessing, what is due, remedies and uncertainty all go over one list of these, so
 * that a check cannot be in one of them and missing in another.
 */
export interface Check<C extends CheckName = CheckName> {
  id: C
  /** The rules of assessing from which on it counts; a saved assessment is worked out again by the checks of its own rules. */
  since: number
  /**
   * Never skips: where an input is missing it finds *not proven*. It may say nothing only where `heldBackBy` or `impliedBy` has
   * spoken; else its silence is *not proven*.
   */
  run: (ctx: LiftContext) => Finding[]
  /** The same of a truck, which stacks and drives; left out: it has nothing of the kind. */
  truck?: (ctx: TruckContext) => Finding[]
  /** The same of what drives with one end of a vehicle lifted. */
  tow?: (ctx: TowContext) => Finding[]
  /** The same of a hoist under a beam. */
  runway?: (ctx: RunwayContext) => Finding[]
  /** The same of a frame astride its load. */
  straddle?: (ctx: StraddleContext) => Finding[]
  /** The same of a load between towers. */
  gantry?: (ctx: GantryContext) => Finding[]
  /**
   * The same, for one pose after another of a working area; left out: it says the same wherever the load goes. What it gives for a cell
   * is the share that `run` finds for a lift that stays there.
   */
  field?: (area: Area) => Layer[]
  /** Checks that it rests on: where one of them finds something outside or not proven, this one cannot be worked out. */
  heldBackBy: readonly CheckName[]
  /** Checks that cannot speak unless this one has passed, which says nothing when it does. */
  impliedBy: readonly CheckName[]
  /** Changes that can put right what it finds, in the order they are offered. */
  remedies: readonly RemedyName[]
}
