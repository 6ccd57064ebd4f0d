/** Ground that rises so steeply one way, radians; `towards_rad` anticlockwise from x. */
export interface Slope {
  grade_rad: number
  towards_rad: number
}

/**
 * How a truck stands on a slope: its nose up, its left side up, radians.
 * sin p = sin σ·cos(β − ψ), sin r = sin σ·sin(β − ψ).
 *
 * @example standingOn({ grade_rad: 8 * rad, towards_rad: 0 }, { heading_rad: 30 * rad }) // pitch 6.92°, roll −3.99°
 */
export function standingOn(
  { grade_rad, towards_rad }: Slope,
  { heading_rad }: { heading_rad: number },
  to = { pitch_rad: 0, roll_rad: 0 },
): { pitch_rad: number; roll_rad: number } {
  const steep = Math.sin(grade_rad)
  const off = towards_rad - heading_rad
  to.pitch_rad = Math.asin(steep * Math.cos(off))
  to.roll_rad = Math.asin(steep * Math.sin(off))
  return to
}
