import { tick_s } from '../swing/axis'
import { stabilityTriangle } from '../truck/stability-triangle'
import { type DriverActs, leastRoom_share } from './drive'
import { type TruckEdge, truckEdges } from './driven-truck'
import { turningOf } from './pose'
import type { TruckMotion, Underfoot } from './truck-motion'

const ahead_s = 1.5

/**
 * What becomes of the room to its edges if the driver holds everything as it is: the first that falls under a third of what it is at rest.
 *
 * @returns the edge, and in how many seconds; null: none within a second and a half
 */
export function lookAhead(now: TruckMotion, acts: DriverActs, on: Underfoot): { edge: TruckEdge; in_s: number } | null {
  const then = now.copy()
  for (let t = 1; t <= Math.round(ahead_s / tick_s); t++) {
    then.tick(acts, on, acts.stop)
    const rest = then.roomAtRest
    const edge = truckEdges.find((e) => then.room[e] < leastRoom_share * rest[e])
    if (edge) return { edge, in_s: t * tick_s }
  }
  return null
}

/** As fast as this bend may be driven, and the speed that overturns it, by the wheels as they stand; null: straight on. */
export function bendSpeeds({ truck, balance, steer_rad, pitch_rad, roll_rad }: TruckMotion): {
  tips_mps: number | null
  permitted_mps: number | null
} {
  const bend = Math.tan(steer_rad) / truck.chassis.wheelbase_m
  if (Math.abs(bend) < 1e-3) return { tips_mps: null, permitted_mps: null }
  // Told of what its driver reads: the speed of the axle that drives.
  const along = turningOf({ speed_mps: 1, steer_rad, axle: truck.axle }, truck.chassis).along_mps
  const read = (v: number | null) => (v === null || v > along * truck.travel.greatest ? null : v / along)
  const { tipSpeed_mps, permittedSpeed_mps } = stabilityTriangle({
    masses: [{ mass_kg: balance.total_kg, x_m: balance.x_m, y_m: balance.y_m, z_m: balance.z_m }],
    frontHalfTrack_m: truck.chassis.frontHalfTrack_m,
    wheelbase_m: truck.chassis.wheelbase_m,
    rear: 'pivot',
    pitch_deg: (pitch_rad * 180) / Math.PI,
    roll_deg: (roll_rad * 180) / Math.PI,
    speed_mps: 0,
    turnRadius_m: -1 / bend,
    braking_mps2: 0,
  })
  if (truck.axle === 'rear') return { tips_mps: read(tipSpeed_mps), permitted_mps: read(permittedSpeed_mps) }
  return { tips_mps: tipSpeed_mps, permitted_mps: permittedSpeed_mps }
}
