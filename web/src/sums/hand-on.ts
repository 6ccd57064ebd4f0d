import type { Tol } from '@geolabe/core'
import type { ProveDraft } from '../prove/draft'
import { isObj } from './schema'

/** What a sum hands on to the proof of a shift’s next lift. */
export interface HandedOn {
  mass_kg?: Tol
  sailArea_m2?: Tol
  name?: string
  wind_mps?: Tol
  setRadius_m?: Tol
}

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

const place = (shift: string) => `geolabe.handed-on.${shift}`

export function handOn(shift: string, h: HandedOn): void {
  localStorage.setItem(place(shift), JSON.stringify(h))
}

/** Takes what was handed on to a shift, once. */
export function takeHandedOn(shift: string): HandedOn | null {
  const kept = localStorage.getItem(place(shift))
  if (kept === null) return null
  localStorage.removeItem(place(shift))
  try {
    return JSON.parse(kept) as HandedOn
  } catch {
    return null
  }
}

export function withHandedOn(d: ProveDraft, h: HandedOn): ProveDraft {
  const load =
    h.mass_kg === undefined
      ? d.lift.load
      : {
          ...d.lift.load,
          name: h.name ?? 'Worked-out load',
          mass_kg: h.mass_kg,
          massSource: 'worked-out' as const,
          sailArea_m2: h.sailArea_m2 ?? null,
        }
  const set = h.setRadius_m === undefined ? d.lift.set : { ...d.lift.set, radius_m: h.setRadius_m }
  return { wind_mps: h.wind_mps ?? d.wind_mps, lift: { ...d.lift, load, set } }
}
