import type { Tol } from '@geolabe/core'

/** What a sum hands on to the proof of a shift’s next lift. */
export interface HandedOn {
  mass_kg?: Tol
  sailArea_m2?: Tol
  name?: string
  wind_mps?: Tol
  setRadius_m?: Tol
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
