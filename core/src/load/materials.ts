/** Densities to reckon with, kg/m³, on the heavy side of what is usual; wet timber and wet sand are heavier than dry. */
export const densities_kg_m3 = {
  steel: 7850,
  'cast-iron': 7300,
  aluminium: 2750,
  lead: 11340,
  concrete: 2500,
  granite: 2750,
  brick: 2000,
  glass: 2600,
  softwood: 700,
  'hardwood-wet': 1100,
  rubber: 1250,
  ice: 920,
  water: 1000,
  'sea-water': 1030,
  diesel: 860,
  'sand-dry': 1700,
  'sand-wet': 2100,
  soil: 1900,
} as const
export type Material = keyof typeof densities_kg_m3
export const materials = Object.keys(densities_kg_m3) as [Material, ...Material[]]
