/** Standard gravity, m/s² (ISO 80000-3). Every weight in the core is mass × this. */
export const g_mps2 = 9.80665

/** Radians in one degree. */
export const rad = Math.PI / 180

/** Brings an angle into [0, 360). */
export function normalDegrees(angle_deg: number): number {
  const a = angle_deg % 360
  return a < 0 ? a + 360 : a + 0
}
