import type { Presentation } from './drawings/present'
import { titles } from './titles'

/** Drawings come with the screens that need them, not all at once. */
const drawings: Record<(typeof titles)[string]['drawn'], () => Promise<Record<string, unknown>>> = {
  site: () => import('./drawings/site'),
  setup: () => import('./drawings/setup'),
  load: () => import('./drawings/load'),
  geometry: () => import('./drawings/geometry'),
  rating: () => import('./drawings/rating'),
  truck: () => import('./drawings/truck'),
  wind: () => import('./drawings/wind'),
}

const isPresentation = (v: unknown): v is Presentation => typeof v === 'object' && v !== null && 'Drawing' in v

/** How a calculator is shown; null: there is none of this name. */
export async function presentationOf(name: string): Promise<Presentation | null> {
  const drawn = titles[name]?.drawn
  if (!drawn) return null
  const all = Object.values(await drawings[drawn]()).filter(isPresentation)
  return all.find((p) => p.name === name) ?? null
}
