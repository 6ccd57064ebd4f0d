/** Density of air, kg/m³ (EN 13000). */
export const air_kg_m3 = 1.25

/** Force of wind on a surface, newtons: ½ρv²·c·A. */
export function windForce_N(speed_mps: number, dragCoefficient: number, area_m2: number): number {
  return 0.5 * air_kg_m3 * speed_mps * speed_mps * dragCoefficient * area_m2
}
