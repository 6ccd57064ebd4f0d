import type { Tol } from '@geolabe/core'
import type { HandedOn } from '../transfer/transfer'
import { isObj } from './schema'

const number = (v: unknown, key: string) => (isObj(v) && typeof v[key] === 'number' ? (v[key] as number) : null)

/** A figure of an answer with the doubt that its inputs gave it. */
function withDoubt(output: unknown, read: (o: unknown) => number | null): Tol | undefined {
  const v = read(output)
  if (v === null || !isObj(output)) return undefined
  const [low, high] = [read(output.low) ?? v, read(output.high) ?? v]
  const tolerance = Math.max(v - low, high - v)
  return tolerance > 1e-9 ? { value: v, tolerance } : v
}

/** What of an answer has a place in a lift’s proof; null: nothing. */
export function handedOnBy(name: string, output: unknown): HandedOn | null {
  const one = (key: string) => withDoubt(output, (o) => number(o, key))
  switch (name) {
    case 'load-mass': {
      const sail = withDoubt(output, (o) =>
        isObj(o) && isObj(o.sailArea_m2) ? Math.max(number(o.sailArea_m2, 'x') ?? 0, number(o.sailArea_m2, 'y') ?? 0) : null,
      )
      const mass = one('mass_kg')
      return mass === undefined ? null : { mass_kg: mass, ...(sail === undefined ? {} : { sailArea_m2: sail }) }
    }
    case 'wind-at-height': {
      const wind = one('gust_mps')
      return wind === undefined ? null : { wind_mps: wind }
    }
    case 'beaufort': {
      const wind = one('to_mps')
      return wind === undefined ? null : { wind_mps: wind }
    }
    case 'telescopic-geometry': {
      const radius = one('radius_m')
      return radius === undefined ? null : { setRadius_m: radius }
    }
    default:
      return null
  }
}
