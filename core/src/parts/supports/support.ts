import type { Support } from '../../statics/footprint'
import type { BearingPoint } from './bearing-point'
import type { OutriggerSetting } from './outriggers'
import type { PropsPart } from './props'

/**
 * How a machine stands: on what, where it bears, and what each point may carry. The rest of the core asks it and never which kind of
 * machine it belongs to.
 */
export interface SupportModel {
  readonly on: 'outriggers' | 'wheels' | 'base' | 'tracks'
  readonly points: readonly BearingPoint[]
  /** Where it bears, metres in the machine's frame: x ahead and y left of the slew centre. */
  readonly contacts: readonly Support[]
  /** What lies under each point. */
  readonly settings: readonly OutriggerSetting[]
  /** The way of standing that was chosen; null: the machine has only one. */
  readonly state: SupportState | null
}

/** One way of standing, as its machine has it; listed by how much work they are, the least first. */
export interface SupportState {
  id: string
  label: string
  on: 'outriggers' | 'wheels'
  /** Bearing points that stand elsewhere than their outriggers do by themselves. */
  contacts?: readonly { id: string; x_m: number; y_m: number }[] | undefined
  /** Configurations of the tables that stand for it; left out: any that covers where it bears. */
  configurations?: readonly string[] | undefined
  /** Through which slews it may be turned; left out: all round. */
  slew?: { from_deg: number; to_deg: number } | undefined
  /** Boom lengths that it may be used with; left out: all. */
  boom_m?: readonly number[] | undefined
  /** Only straight up and down. */
  upAndDown?: true | undefined
  /** Legs under the boom. */
  props?: PropsPart | undefined
  /** What is done in it: nothing else is. */
  for: 'lift' | 'tow'
  /** What has to be confirmed in it. */
  needs: readonly string[]
}
