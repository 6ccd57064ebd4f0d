import type { MachinePosition, Place } from '@geolabe/core'

/** What of the place is worth seeing from above: stands and ways, and what stands round them. */
export function viewOf(place: Place): { centre: MachinePosition; half_m: number } {
  const told = place.features
    .filter((f) => !['void', 'overhead', 'edge', 'ground'].includes(f.kind))
    .flatMap((f) => f.geometry.points)
  const all = [...told, ...place.positions.map((p): [number, number] => [p.x_m, p.y_m])]
  const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  // Drawn as the place is: x to the right.
  const centre = { x_m: (x0 + x1) / 2, y_m: (y0 + y1) / 2, heading_deg: 90 }
  return { centre, half_m: Math.max(8, x1 - x0, y1 - y0) / 2 + 1 }
}
