import type { Support } from '../../statics/footprint'

/** One place where a machine can bear on the ground, as its maker gives it. */
export interface BearingPoint {
  id: string
  label: string
  /** The greatest load its own structure may carry, newtons. */
  capacity_N: number
  /** What stands on the ground or on a mat, metres. */
  float: { length_m: number; width_m: number }
}

/**
 * How a machine stands: its bearing points in a setting, and what each may carry. One implementation a file; the rest of the core
 * asks it and never which kind of machine it belongs to.
 */
export interface SupportModel<Stop extends string = string> {
  readonly points: readonly BearingPoint[]
  /**
   * Where it bears, metres in the machine's frame: x ahead and y left of the slew centre.
   * @throws Refusal `missing-leg` when a point has no setting
   */
  contactsOf: (settings: readonly { id: string; at: { stop: Stop } }[]) => Support[]
  /** Stops further out than this one, the nearest first. */
  furtherOut: (stop: Stop) => readonly Stop[]
}
