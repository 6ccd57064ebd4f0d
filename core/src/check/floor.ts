import { type FloorLimits, floorLimits } from '../ground/floor'
import { g_mps2 } from '../physics'
import { type Layer, NOT_RATED, UNREACHABLE } from './area'
import { axleUses } from './axle'
import type { Check } from './check'
import { type AxleOn, onFloor } from './on-floor'
import { straddleFloor } from './straddle'
import { towFloor } from './towing'
import { truckFloor } from './truck-stands'
import { type Carried, wheelsIn } from './wheels-in-area'

/** Axles standing, and wheels with their factor, against what the floor or deck under them carries (EN 1991-1-1). */
export const floorCheck: Check<'floor'> = {
  id: 'floor',
  since: 1,
  run: (ctx) => {
    const { support, machine, bearings, near_share, plan, stands, hook } = ctx
    const { standing } = plan.setup
    if (standing.on !== 'wheels' || support.on !== 'wheels' || !machine.wheels || bearings.length === 0) return []
    const { axles, floorFactor } = machine.wheels
    const uses = axleUses(ctx)
    const each = axles.map(({ id, label, wheels }): AxleOn => {
      const own = bearings.filter((b) => b.point.id.startsWith(id === 'front' ? 'F' : 'R'))
      return {
        id,
        label,
        axle_N: Math.max(...uses.filter((u) => u.axle.id === id).map((u) => u.load_N)),
        wheel_N: (Math.max(...own.map((b) => b.max_N)) / wheels) * floorFactor,
      }
    })
    const weighs = stands.map(({ posed: { fixed, slewing } }) => fixed.force_N + slewing.force_N + (hook?.total_kg ?? 0) * g_mps2)
    return onFloor(standing.ground, each, Math.max(...weighs), near_share)
  },
  field: (area) => {
    const carried = wheelsIn(area)
    const standing = area.lift?.plan.setup.standing
    const wheels = area.lift?.machine.wheels
    if (!carried || !wheels || standing?.on !== 'wheels') return []
    const limits = standing.ground && floorLimits(standing.ground)
    const layer = (id: string, share: (on: Carried, to: FloorLimits) => number): Layer => ({
      id,
      weighs: true,
      useAt: (cell) => {
        if (!limits) return NOT_RATED
        const on = carried.at(cell)
        return on === null ? UNREACHABLE : share(on, limits)
      },
    })
    return carried.axles.flatMap((axle, k) => [
      layer(`floor:${axle.id}`, (on, { axle_N }) => (on.axle_N[k] ?? 0) / axle_N),
      layer(`floor:${axle.id}-wheel`, (on, { wheel_N }) =>
        wheel_N === null ? 0 : (((on.corner_N[k] ?? 0) / axle.wheels) * wheels.floorFactor) / wheel_N,
      ),
    ])
  },
  truck: truckFloor,
  tow: towFloor,
  straddle: straddleFloor,
  heldBackBy: ['mass', 'boom-limits', 'overturning'],
  impliedBy: [],
  remedies: ['support', 'radius', 'load-centre', 'mass', 'split', 'arm', 'lifted'],
}
