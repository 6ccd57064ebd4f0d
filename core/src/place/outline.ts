import type { Outline } from '../clearance/standing'
import type { Feature } from './place'
import { type MachinePosition, toMachine } from './standing'

/** A feature's plan in the frame of a machine that stands there. */
export function outlineOf({ geometry }: Feature, position: MachinePosition): Outline {
  return {
    points: geometry.points.map(([x_m, y_m]) => toMachine(position, { x_m, y_m })),
    closed: geometry.type === 'Polygon',
  }
}
