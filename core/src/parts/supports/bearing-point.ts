/** One place where a machine can bear on the ground, as its maker gives it. */
export interface BearingPoint {
  id: string
  label: string
  /** The greatest load its own structure may carry, newtons. */
  capacity_N: number
  /** What stands on the ground or on a mat, metres. */
  float: { length_m: number; width_m: number }
}
