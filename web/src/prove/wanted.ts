import {
  atSlew,
  type Case,
  type HookPoint,
  high,
  type LiftPlan,
  liftPlan,
  nominal,
  type Place,
  toPlace,
  type WantedLift,
} from '@geolabe/core'
import { loadOf } from './load-of'

/** A lift that somebody has in mind, as far as it is entered. */
export interface WantedDraft {
  hung: LiftPlan['hung']
  from: WantedLift['from']
  to: WantedLift['to']
  over_m: number
  wind_mps: number | null
  roofShut: boolean
  order: 'margin' | 'work'
  /** Where a machine is wanted; null: half way. */
  near: { x_m: number; y_m: number } | null
}

/** Something that waits here, taken from one marked stand towards another. */
export function firstWanted(place: Place): WantedDraft {
  const [a, b] = place.positions
  const xs = place.positions.map((p) => p.x_m)
  const ys = place.positions.map((p) => p.y_m)
  const middle = (of: number[]) => of.reduce((s, v) => s + v, 0) / of.length
  const from = { x_m: Math.round((a?.x_m ?? middle(xs)) + 4), y_m: Math.round((a?.y_m ?? middle(ys)) + 4), height_m: 0 }
  const to = { x_m: Math.round((b?.x_m ?? from.x_m) - 4), y_m: Math.round((b?.y_m ?? from.y_m) + 3), height_m: 0 }
  const hung: LiftPlan['hung'] = {
    load: loadOf(place.loads[0]),
    rigging: [{ name: 'slings', mass_kg: 20, on: 'hook' }],
    rigging_height_m: 1.5,
  }
  return { hung, from, to, over_m: 0.5, wind_mps: null, roofShut: false, order: 'margin', near: null }
}

/** Is a draft that was kept on the device of today's shape? */
export const isWanted = (d: Partial<WantedDraft>): boolean =>
  liftPlan.shape.hung.safeParse(d.hung).success &&
  typeof d.from?.height_m === 'number' &&
  typeof d.to?.height_m === 'number' &&
  typeof d.over_m === 'number' &&
  d.near !== undefined

/** Where a machine is wanted: as it was touched, else half way. */
export const nearOf = ({ near, from, to }: WantedDraft) => near ?? { x_m: (from.x_m + to.x_m) / 2, y_m: (from.y_m + to.y_m) / 2 }

/** A lift as it is planned on one machine, for any: its points in the place's metres. Null: it is no lift on a hook. */
export function wantedFrom({ place, setup, lift, conditions }: Case): WantedDraft | null {
  const laden = lift.steps.filter((s) => s.do === 'slew' && s.laden)
  const [first, last] = [laden[0], laden.at(-1)]
  if (first?.do !== 'slew' || last?.do !== 'slew') return null
  const at = ({ radius_m, slew_deg }: HookPoint, height_m: number | null | undefined) => {
    const { x_m, y_m } = toPlace(setup.position, atSlew(nominal(radius_m), slew_deg))
    return { x_m: Math.round(x_m * 100) / 100, y_m: Math.round(y_m * 100) / 100, height_m: Math.max(0, height_m ?? 0) }
  }
  const { wind_mps } = conditions
  return {
    ...firstWanted(place),
    hung: lift.hung,
    from: at(first.pickUp, first.heights?.pickUp_m),
    to: at(last.setDown, last.heights?.setDown_m),
    over_m: Math.max(0, first.heights?.over_m ?? 0),
    wind_mps: wind_mps === null ? null : high(wind_mps),
    roofShut: conditions.roofShut ?? false,
    near: { x_m: setup.position.x_m, y_m: setup.position.y_m },
  }
}
export const wantedKey = (place: string) => `place.${place}.wanted`

export const wantedOf = ({ hung, from, to, over_m }: WantedDraft): WantedLift => ({
  format: 'geolabe.wanted/1',
  hung,
  from,
  to,
  over_m,
})
export const conditionsOf = ({ wind_mps, roofShut }: WantedDraft) => ({
  wind_mps: roofShut ? null : wind_mps,
  ...(roofShut && { roofShut }),
})
