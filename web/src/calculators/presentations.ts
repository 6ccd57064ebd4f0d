import { type CalculatorGroup, calculatorGroups } from '@geolabe/core'
import type { Presented } from './drawings/present'

/** Drawings come with the screens that need them, not all at once. */
const drawings: Record<CalculatorGroup['id'], (() => Promise<Record<string, unknown>>)[]> = {
  'walk-round': [() => import('./drawings/site')],
  site: [() => import('./drawings/site'), () => import('./drawings/geometry')],
  'set-up': [() => import('./drawings/setup'), () => import('./drawings/order')],
  load: [() => import('./drawings/load'), () => import('./drawings/weigh'), () => import('./drawings/order')],
  rating: [() => import('./drawings/geometry'), () => import('./drawings/rating'), () => import('./drawings/runway')],
  trucks: [() => import('./drawings/truck')],
  wind: [() => import('./drawings/wind')],
  pull: [() => import('./drawings/load')],
}

const isPresented = (v: unknown): v is Presented => typeof v === 'object' && v !== null && 'presentation' in v

/** How a calculator is shown; null: there is none of this name. */
export async function presentationOf(name: string): Promise<Presented | null> {
  const group = calculatorGroups.find((g) => g.calculators.some((c) => c.name === name))
  const loaded = await Promise.all((group ? drawings[group.id] : []).map((load) => load()))
  return (
    loaded
      .flatMap(Object.values)
      .filter(isPresented)
      .find((p) => p.calculator.name === name) ?? null
  )
}
