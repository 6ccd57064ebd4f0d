import { type Feature, type MachinePosition, type Place, toMachine } from '@geolabe/core'
import { onPaper, pathOf } from './frame'

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
}: {
  place: Place
  position: MachinePosition
  thin: number
  extent_m: number
}) {
  return (
    <g aria-hidden="true">
      {place.features.map((f) => {
        const points = pointsOf(f, position)
        return f.geometry.type === 'Polygon' ? (
          <path
            key={f.id}
            d={pathOf(points)}
            fill={shade(f, place)}
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
        .filter((f) => f.kind !== 'ground' || shade(f, place) === 'url(#unknown-ground)')
        .map((f) => (
          <FeatureName key={f.id} feature={f} position={position} extent_m={extent_m} />
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
      fontSize={extent_m / 21}
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
