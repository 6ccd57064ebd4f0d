import { atSlew, type MapZone } from '@geolabe/core'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { pathOf } from './frame'

/** What ends a zone, as a line: the table's end, tipping, the ground. Told apart by dashes, named beneath the dial. */
export const zoneEnds = [
  { id: 'table', label: t`rated capacity, or the table ends`, dash: [] },
  { id: 'stability', label: 'tipping', dash: [7, 4] },
  { id: 'ground', label: t`what it stands on: an outrigger, a wheel, the ground`, dash: [1.6, 3.4] },
  { id: 'around', label: t`something in the way: a wall, a line, an edge, the height`, dash: [7, 3, 1.6, 3] },
] as const
const kinds: Record<string, (typeof zoneEnds)[number]['id']> = {
  rating: 'table',
  overturning: 'stability',
  'boom-limits': 'table',
  outrigger: 'ground',
  ground: 'ground',
  axle: 'ground',
  wheel: 'ground',
  floor: 'ground',
  motion: 'table',
}
/** By the check that ends it; what is not of the machine and its table stands or hangs there. */
const kindOf = (endedBy: string | null) => (endedBy === null ? 'table' : (kinds[endedBy.split(':')[0] ?? ''] ?? 'around'))

/** Neighbouring slews that have something in common, as runs; the circle is closed where both its ends do. */
function runs<T>(list: readonly T[], same: (a: T, b: T) => boolean): T[][] {
  const out: T[][] = []
  for (const x of list) {
    const last = out[out.length - 1]
    const before = last?.[last.length - 1]
    if (last && before !== undefined && same(before, x)) last.push(x)
    else out.push([x])
  }
  return out
}

/** Where this load can go: open ground inside, hatched where a limit is near, shaded beyond; its edge says what ends it. */
export function Zones({ zones, thin, extent_m }: { zones: readonly (MapZone | null)[]; thin: number; extent_m: number }) {
  const step = 360 / zones.length
  const there = zones.filter((z): z is MapZone => z !== null)
  const beside = (a: MapZone, b: MapZone) => Math.abs(b.slew_deg - a.slew_deg - step) < 1e-6
  const wedge = (z: MapZone, from: number, to: number) =>
    pathOf([
      atSlew(from, z.slew_deg - step / 2),
      atSlew(to, z.slew_deg - step / 2),
      atSlew(to, z.slew_deg + step / 2),
      atSlew(from, z.slew_deg + step / 2),
    ])
  const ring = (list: readonly MapZone[], from: (z: MapZone) => number, to: (z: MapZone) => number) =>
    pathOf([
      ...list.flatMap((z) => [atSlew(to(z), z.slew_deg - step / 2), atSlew(to(z), z.slew_deg + step / 2)]),
      ...[...list].reverse().flatMap((z) => [atSlew(from(z), z.slew_deg + step / 2), atSlew(from(z), z.slew_deg - step / 2)]),
    ])
  const stretches = runs(there, beside)
  const far = extent_m * 6
  const near = there.filter((z) => z.near_m < z.to_m - 1e-6)
  return (
    <g aria-hidden="true">
      <defs>
        <pattern id="zone-near" width={thin * 9} height={thin * 9} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={thin * 2.6} height={thin * 9} fill="var(--near)" fillOpacity="0.5" />
        </pattern>
      </defs>
      <path
        d={`${pathOf([45, 135, 225, 315].map((a) => atSlew(far, a)))}${stretches
          .map((s) =>
            ring(
              s,
              (z) => z.from_m,
              (z) => z.to_m,
            ),
          )
          .join('')}`}
        fill="var(--outside)"
        fillOpacity="0.11"
        fillRule="evenodd"
      />
      <path d={near.map((z) => wedge(z, Math.max(z.from_m, z.near_m), z.to_m)).join('')} fill="url(#zone-near)" />
      {runs(there, (a, b) => beside(a, b) && kindOf(a.endedBy) === kindOf(b.endedBy)).map((run) => {
        const first = run[0] as MapZone
        const ends = zoneEnds.find((e) => e.id === kindOf(first.endedBy)) ?? zoneEnds[0]
        return (
          <path
            key={first.slew_deg}
            d={pathOf(
              run.flatMap((z) => [atSlew(z.to_m, z.slew_deg - step / 2), atSlew(z.to_m, z.slew_deg + step / 2)]),
              false,
            )}
            fill="none"
            stroke="var(--inside)"
            strokeWidth={thin * 3.5}
            strokeLinejoin="round"
            strokeDasharray={ends.dash.map((d) => d * thin * 2).join(' ') || undefined}
          />
        )
      })}
    </g>
  )
}

/** What the edge of the zone means, in words and in its own dashes. */
export function ZoneLegend() {
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-1 text-[0.92rem] text-quiet">
      {zoneEnds.map((e) => (
        <li key={e.id} className="flex items-center gap-2">
          <svg viewBox="0 0 44 8" className="h-2 w-11" aria-hidden="true">
            <path d="M0 4H44" stroke="var(--inside)" strokeWidth="4" strokeDasharray={e.dash.join(' ') || undefined} />
          </svg>
          {e.label}
        </li>
      ))}
      <li className="flex items-center gap-2">{rich`${<span className="h-4 w-8 hatch-near opacity-60" aria-hidden="true" />} near a limit`}</li>
    </ul>
  )
}
