import { normalDegrees } from '../physics'

/** Is a slew inside the sector a configuration is made for? Its ends belong to it. */
export function inSector(c: { sector?: { from_deg: number; to_deg: number } | undefined }, slew_deg: number): boolean {
  if (!c.sector) return true
  const width = normalDegrees(c.sector.to_deg - c.sector.from_deg) || 360
  const into = normalDegrees(slew_deg - c.sector.from_deg)
  return into <= width + 1e-9 || into >= 360 - 1e-9
}
