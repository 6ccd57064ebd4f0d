import { type Feature, type MachinePosition, type Place, type Point, toMachine } from '@geolabe/core'
import { letters, onPaper, pathOf } from './frame'

const pointsOf = (f: Feature, position: MachinePosition) =>
  f.geometry.points.map(([x_m, y_m]) => toMachine(position, { x_m, y_m }))

/** Patterns shared by the drawings of a place; one set a page is enough. */
export function GroundPatterns({ unit }: { unit: number }) {
  const u = unit
  return (
    <defs>
      <pattern id="wall" width={u * 0.7} height={u * 0.7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width={u * 0.7} height={u * 0.7} fill="var(--sunk)" />
        <path d={`M0 0V${u * 0.7}`} stroke="var(--edge)" strokeWidth={u * 0.22} />
      </pattern>
      <pattern id="unknown-ground" width={u * 0.6} height={u * 0.6} patternUnits="userSpaceOnUse">
        <circle cx={u * 0.2} cy={u * 0.2} r={u * 0.1} fill="var(--unproven)" />
      </pattern>
      <pattern id="people" width={u} height={u} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d={`M0 0V${u}`} stroke="var(--near)" strokeWidth={u * 0.14} />
      </pattern>
    </defs>
  )
}

function shade(f: Feature, place: Place): string {
  if (f.kind === 'solid') return 'url(#wall)'
  if (f.kind === 'void') return 'var(--water)'
  if (f.kind === 'people') return 'url(#people)'
  if (f.kind === 'rack') return 'var(--edge)'
  const ground = place.ground.find((g) => g.id === f.ground)
  return ground?.allowable_kPa === undefined && (ground?.soil === 'made-ground' || ground?.soil === 'peat')
    ? 'url(#unknown-ground)'
    : 'var(--sheet)'
}

/** What lies round the machine, true to scale, in the machine's own frame. */
export function Surroundings({
  place,
  position,
  thin,
  extent_m,
  named = () => true,
  aisles = false,
}: {
  place: Place
  position: MachinePosition
  thin: number
  extent_m: number
  /** Which of it is worth its name here. */
  named?: (f: Feature) => boolean
  /** Where something is driven, not where it only stands. */
  aisles?: boolean
}) {
  return (
    <g aria-hidden="true">
      {place.features.map((f) => {
        const points = pointsOf(f, position)
        if (f.kind === 'ceiling' || (f.kind === 'aisle' && !aisles)) return null
        if (f.kind === 'aisle' || f.kind === 'door') return <WayMark key={f.id} feature={f} points={points} thin={thin} />
        if (f.axis) return <Slope key={f.id} feature={f} position={position} thin={thin} />
        return f.geometry.type === 'Polygon' ? (
          <path
            key={f.id}
            d={pathOf(points)}
            // What is gone into is not hatched over.
            fill={f.hollow ? 'var(--sunk)' : shade(f, place)}
            stroke={f.kind === 'ground' ? 'var(--line)' : 'var(--edge)'}
            strokeWidth={f.kind === 'ground' ? thin : thin * 2}
          />
        ) : f.kind === 'edge' ? (
          <g key={f.id} fill="none" stroke="var(--ink)">
            <path d={pathOf(points, false)} strokeWidth={thin * 2.5} />
            <path d={pathOf(points, false)} strokeWidth={thin * 9} strokeDasharray={`${thin * 2} ${thin * 9}`} />
          </g>
        ) : (
          <path
            key={f.id}
            d={pathOf(points, false)}
            fill="none"
            stroke="var(--outside)"
            strokeWidth={thin * 3}
            strokeDasharray={`${thin * 12} ${thin * 5} ${thin * 2} ${thin * 5}`}
          />
        )
      })}
      {place.features
        .filter((f) => !quiet.has(f.kind) && named(f))
        .filter((f) => f.kind !== 'ground' || shade(f, place) === 'url(#unknown-ground)')
        .map((f) => (
          <FeatureName key={f.id} feature={f} position={position} extent_m={extent_m} />
        ))}
    </g>
  )
}

/** Drawn, but not named: there are many, or they lie overhead. */
const quiet = new Set<Feature['kind']>(['aisle', 'rack', 'ceiling', 'door'])

/** The middle of an aisle, or a door as a gap in its wall. */
function WayMark({ feature, points, thin }: { feature: Feature; points: readonly Point[]; thin: number }) {
  return feature.kind === 'door' ? (
    <path d={pathOf(points, false)} stroke="var(--paper)" strokeWidth={thin * 9} />
  ) : (
    <path
      d={pathOf(points, false)}
      fill="none"
      stroke="var(--quiet)"
      strokeWidth={thin * 1.5}
      strokeDasharray={`${thin * 3} ${thin * 6}`}
    />
  )
}

/** A slope, with an arrow that points up it. */
function Slope({ feature, position, thin }: { feature: Feature; position: MachinePosition; thin: number }) {
  const [foot, crest] = (feature.axis ?? []).map(([x_m, y_m]) => toMachine(position, { x_m, y_m }))
  if (!foot || !crest) return null
  const [dx, dy] = [crest.x_m - foot.x_m, crest.y_m - foot.y_m]
  const at = (t: number, aside: number): Point => ({ x_m: foot.x_m + dx * t - dy * aside, y_m: foot.y_m + dy * t + dx * aside })
  return (
    <g fill="none" stroke="var(--edge)" strokeWidth={thin * 2}>
      <path d={pathOf(pointsOf(feature, position))} fill="var(--sheet)" />
      {[0.08, 0.92].map((t) => (
        <path key={t} d={pathOf([at(t - 0.05, 0.06), at(t, 0), at(t - 0.05, -0.06)], false)} />
      ))}
    </g>
  )
}

/** Names what is in view, at the part of it that is in view. */
function FeatureName({ feature, position, extent_m }: { feature: Feature; position: MachinePosition; extent_m: number }) {
  const reach = extent_m * 0.9
  const pts = pointsOf(feature, position).map(onPaper)
  const clamp = (v: number) => Math.max(-reach, Math.min(reach, v))
  const inside = pts.map(([x, y]) => [clamp(x), clamp(y)] as const)
  const x = inside.reduce((s, p) => s + p[0], 0) / inside.length
  const y = inside.reduce((s, p) => s + p[1], 0) / inside.length
  const seen =
    pts.some(([px, py]) => Math.abs(px) < extent_m && Math.abs(py) < extent_m) ||
    (Math.abs(x) < reach * 0.98 && Math.abs(y) < reach * 0.98)
  if (!seen) return null
  const upright =
    Math.max(...inside.map((p) => p[1])) - Math.min(...inside.map((p) => p[1])) >
    Math.max(...inside.map((p) => p[0])) - Math.min(...inside.map((p) => p[0]))
  return (
    <text
      x={x}
      y={y}
      transform={upright ? `rotate(-90 ${x} ${y})` : undefined}
      style={letters(extent_m / 21)}
      className="lettering"
      textAnchor="middle"
      dominantBaseline="middle"
      fill="var(--ink)"
      stroke="var(--sheet)"
      strokeWidth={extent_m / 150}
      paintOrder="stroke"
    >
      {feature.label}
    </text>
  )
}
