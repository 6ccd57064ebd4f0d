import type { Place } from '@geolabe/core'
import { GroundPatterns, Surroundings } from '../instruments/surroundings'

/** The place about its stands, true to scale. */
export function PlaceMap({ place }: { place: Place }) {
  const xs = place.positions.map((s) => s.x_m)
  const ys = place.positions.map((s) => s.y_m)
  const centre = { x_m: (Math.min(...xs) + Math.max(...xs)) / 2, y_m: (Math.min(...ys) + Math.max(...ys)) / 2, heading_deg: 90 }
  const extent = Math.max(14, (Math.max(...xs) - Math.min(...xs)) / 2 + 9)
  const thin = extent / 420
  const height = Math.max(15, extent * 0.62)
  return (
    <svg
      viewBox={`${-extent} ${-height} ${2 * extent} ${2 * height}`}
      className="block max-h-[40dvh] w-full rounded-xl border border-line bg-paper roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={`${place.name}: ${place.features.map((f) => f.label).join(', ')}`}
    >
      <GroundPatterns unit={extent / 22} />
      <Surroundings place={place} position={centre} thin={thin} extent_m={extent} />
      {place.positions.map((s) => {
        const [x, y] = [s.x_m - centre.x_m, -(s.y_m - centre.y_m)]
        return (
          <g key={s.id}>
            <circle cx={x} cy={y} r={extent / 55} fill="var(--accent)" stroke="var(--ink)" strokeWidth={thin * 3} />
            <text
              x={x}
              y={y + extent / 14}
              fontSize={extent / 26}
              fontWeight="700"
              textAnchor="middle"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth={extent / 150}
              paintOrder="stroke"
            >
              {s.label}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
