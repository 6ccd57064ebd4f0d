import type { Feature, MatKind, Place } from '../../place/place'
import { inTheWay, type MachinePosition } from '../../place/standing'
import { type Outrigger, stopsOf } from './outriggers'

/** What keeps an outrigger from standing at a stop, on a mat or its own pad; nothing: it can. */
export function keepsFootFrom(
  outrigger: Outrigger,
  stop: string,
  mat: MatKind | undefined,
  { place, position }: { place: Place; position: MachinePosition },
): Feature | undefined {
  const at = stopsOf(outrigger).find((s) => s.id === stop)
  const on = mat ?? outrigger.float
  return at && inTheWay(place, position, at, Math.max(on.length_m, on.width_m, outrigger.float.length_m) / 2)
}
