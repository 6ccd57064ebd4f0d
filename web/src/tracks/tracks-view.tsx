import { type Crane, type Finding, tracksRound } from '@geolabe/core'
import { curveLinearClosed, lineRadial } from 'd3-shape'
import { useMemo } from 'react'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { useSay } from '../units/units'

type Case = Parameters<typeof tracksRound>[0]

const slews = Array.from({ length: 72 }, (_, i) => i * 5)

/** What presses on the ground under the tracks with the boom at every slew, against what the ground takes; front upwards. */
export function TracksView({ machine, plan, findings }: { machine: Crane; plan: Case; findings: readonly Finding[] }) {
  const say = useSay()
  const round = useMemo(() => tracksRound(plan, slews), [plan])
  const { tracks } = machine
  const { standing } = plan.setup
  const takes = standing.on === 'tracks' ? (standing.ground?.allowable_kPa ?? null) : null
  const finite = round.filter(Number.isFinite)
  const most = Math.max(1, ...finite)
  const worst = round.indexOf(most)
  const full = Math.max(most, takes ?? 0) * 1.12
  const r = 10
  const scale = r / full
  const width = 2 * r + 4
  const text = width / 30
  const thin = text / 14
  const shape =
    lineRadial<[number, number]>()
      .angle((p) => (-p[0] * Math.PI) / 180)
      .radius((p) => p[1])
      .curve(curveLinearClosed)
      .digits(3)(slews.map((s, i): [number, number] => [s, Math.min(full, round[i] ?? 0) * scale])) ?? ''
  const at = slews[worst] ?? 0
  const [wx, wy] = [-Math.sin((at * Math.PI) / 180), -Math.cos((at * Math.PI) / 180)]
  const ground = findings.filter((f) => f.check === 'ground')
  const verdict = ground.find((f) => f.verdict !== 'inside')?.verdict ?? 'inside'
  const [long, wide, gauge] = [tracks?.length_m ?? 8, tracks?.width_m ?? 1, tracks?.gauge_m ?? 6]
  const small = 0.55
  return (
    <svg
      viewBox={`${-width / 2} ${-width / 2} ${width} ${width}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`Pressure under the tracks with the boom at every slew: most ${say('pressure', most)} at ${say('angle', at)}${takes === null ? '' : t`, the ground takes ${say('pressure', takes)}`}`}
    >
      {[1, 2, 3, 4].map((k) => (
        <circle key={k} r={(r * k) / 4} fill="none" stroke="var(--line)" strokeWidth={thin} />
      ))}
      <g transform={`scale(${small})`} stroke="var(--ink)" strokeWidth={thin * 2} fill="var(--edge)">
        {[1, -1].map((side) => (
          <rect key={side} x={(side * gauge) / 2 - wide / 2} y={-long / 2} width={wide} height={long} rx={0.3} />
        ))}
        <rect x={-gauge / 2 + wide} y={-1.6} width={gauge - 2 * wide} height={3.2} fill="var(--sheet)" />
      </g>
      {takes !== null && (
        <circle
          r={takes * scale}
          fill="none"
          stroke="var(--outside)"
          strokeWidth={thin * 2.4}
          strokeDasharray={`${thin * 10} ${thin * 6}`}
        />
      )}
      <path d={shape} fill={verdictInk[verdict]} fillOpacity={0.18} stroke={verdictInk[verdict]} strokeWidth={thin * 3} />
      {finite.length > 0 && (
        <>
          <path d={`M0 0L${wx * most * scale} ${wy * most * scale}`} stroke="var(--ink)" strokeWidth={thin * 3} />
          <circle cx={wx * most * scale} cy={wy * most * scale} r={text * 0.4} fill="var(--ink)" />
        </>
      )}
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
        <text x={0} y={-r - text * 0.6} textAnchor="middle" fill="var(--quiet)" fontWeight="500">{t`front`}</text>
        {finite.length > 0 && (
          <text x={-width / 2 + text * 0.6} y={width / 2 - text * 0.7}>
            {t`${say('pressure', most)} at most, boom at ${say('angle', at)}`}
          </text>
        )}
        {takes !== null && (
          <text x={width / 2 - text * 0.6} y={-width / 2 + text * 1.4} textAnchor="end" fill="var(--outside)">
            {t`ground takes ${say('pressure', takes)}`}
          </text>
        )}
      </g>
    </svg>
  )
}
