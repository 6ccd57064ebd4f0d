import {
  type Assessment,
  beamOf,
  bendingAt,
  g_mps2,
  type LiftPlan,
  type MarkedPart,
  type MarksRead,
  nominal,
  type RunwayMachine,
  worstBending,
} from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { area, curveLinear } from 'd3-shape'
import { type KeyboardEvent, useRef } from 'react'
import { FocusRing } from '../instruments/focus-ring'
import { underFinger } from '../instruments/frame'
import { PointMark } from '../instruments/point-mark'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { traverseOf } from './draft'

/** How high the beam hangs and how deep it is, as it is drawn; the place of nothing that is computed. */
const [hung_m, deep_m] = [3.4, 0.36]
const pieces = 60

export const markName: Record<MarkedPart, string> = { hoist: t`Hoist`, trolley: t`Trolley`, beam: t`Beam`, hook: t`Hook` }

/** The beam from its side: supports, stops, the trolley with its load, what each part is marked with, and how the beam bends below. */
export function BeamView({
  machine,
  lift,
  marks,
  assessment,
  onMove,
}: {
  machine: RunwayMachine
  /** Null: nothing is lifted yet. */
  lift: LiftPlan | null
  marks?: MarksRead | undefined
  assessment: Pick<Assessment, 'findings' | 'hookLoad_kg'> | null
  onMove?: ((which: 'from_m' | 'to_m', at_m: number) => void) | undefined
}) {
  const say = useSay()
  const { stops, own_kg, label } = machine.runway.travel
  const beam = beamOf(machine.runway)
  const end_m = beam.span_m + beam.overhang_m
  const [left, right] = [-0.7, end_m + 0.7]
  const width = right - left
  const thin = width / 420
  const text = width / 30
  const step = lift && traverseOf(lift)
  const [from, to] = step ? [nominal(step.from_m), nominal(step.to_m)] : [beam.span_m / 2, beam.span_m / 2]
  const kg = assessment?.hookLoad_kg ?? null
  const found = (id: string) => assessment?.findings.find((f) => f.id === id) ?? null
  const bent = found('structure:beam')
  const far = found('structure:support')
  const top = hung_m + deep_m + 1.5
  const below = lift ? 2.9 : 0.7
  const read = (part: MarkedPart) => {
    const own = marks?.[part]
    return own == null ? t`${markName[part]}: not read` : `${markName[part]} ${say('mass', own)}`
  }
  const size = lift?.hung.load.size
  const [long, tall] = [Math.min(2, size?.length_m ?? 0.9), Math.min(1.2, size?.height_m ?? 0.8)]
  return (
    <svg
      viewBox={`${left} ${-top} ${width} ${top + below}`}
      className="block aspect-[4/3] max-h-[44dvh] w-full rounded-xl border border-line bg-paper select-none roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="group"
      aria-label={
        lift
          ? t`${label} from its side, the load taken from ${say('length', from)} to ${say('length', to)} along it`
          : t`${label} from its side with its four marks`
      }
    >
      <rect x={left - width} y={0} width={3 * width} height={below + top} fill="var(--sunk)" />
      <path d={`M${left - width} 0H${right + width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <g stroke="var(--ink)" strokeWidth={thin * 2} fill="var(--sheet)">
        {[0, beam.span_m].map((x) => (
          <rect key={x} x={x - 0.12} y={-hung_m} width={0.24} height={hung_m} />
        ))}
        <rect x={0} y={-hung_m - deep_m} width={end_m} height={deep_m} />
        <path d={`M0 ${-hung_m - deep_m * 0.78}H${end_m}M0 ${-hung_m - deep_m * 0.22}H${end_m}`} strokeWidth={thin * 1.2} />
        {[stops.from_m - 0.12, stops.to_m + 0.12].map((x) => (
          <rect key={x} x={x - 0.05} y={-hung_m} width={0.1} height={0.24} fill="var(--ink)" />
        ))}
      </g>
      {far?.measured != null && (
        <g stroke={verdictInk[far.verdict]} strokeWidth={thin * 6} fill="none">
          <path d={`M-0.4 ${-hung_m + 0.9}v-1.3m-0.22 0.3l0.22-0.3l0.22 0.3`} />
        </g>
      )}
      {step && from !== to && <Hung at_m={from} long={long} tall={tall} thin={thin} ghost />}
      <Hung at_m={to} long={long} tall={tall} thin={thin} empty={!step} />
      {step && (
        <path
          d={`M${from} ${-hung_m - deep_m - 0.25}H${to}`}
          stroke="var(--ink)"
          strokeWidth={thin * 3}
          strokeDasharray={`${thin * 12} ${thin * 6}`}
        />
      )}
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
        {marks && (
          <>
            <text x={0.1} y={-hung_m - deep_m - text * 0.5}>
              {read('beam')}
            </text>
            <text x={to + 0.5} y={-hung_m + text * 1.1}>
              {read('trolley')}
            </text>
            <text x={to + 0.5} y={-hung_m + text * 2.5}>
              {read('hoist')}
            </text>
            <text x={to + 0.5} y={-1.15}>
              {read('hook')}
            </text>
          </>
        )}
        {!lift && (
          <text x={beam.span_m / 2} y={text * 1.3} textAnchor="middle" stroke="var(--sunk)">
            {t`${say('length', beam.span_m)} between its supports, ${say('length', beam.overhang_m)} beyond`}
          </text>
        )}
      </g>
      {lift && (
        <Bent machine={machine} load_N={((kg ?? 0) + own_kg) * g_mps2} from={from} to={to} verdict={bent?.verdict} text={text} />
      )}
      {step &&
        onMove &&
        (['from_m', 'to_m'] as const).map((which) => (
          <BeamPoint
            key={which}
            name={which === 'from_m' ? t`Pick-up point` : t`Set-down point`}
            letter={which === 'from_m' ? 'P' : 'S'}
            at_m={nominal(step[which])}
            least_m={stops.from_m}
            most_m={stops.to_m}
            y={-hung_m - deep_m - 0.85}
            size={width / 40}
            spoken={t`${say('length', nominal(step[which]))} along the beam`}
            onMove={(at) => onMove(which, at)}
          />
        ))}
    </svg>
  )
}

/** Trolley, chain and load under the beam; as it was before, only its outline. */
function Hung({
  at_m,
  long,
  tall,
  thin,
  ghost = false,
  empty = false,
}: {
  at_m: number
  long: number
  tall: number
  thin: number
  ghost?: boolean
  empty?: boolean
}) {
  const foot = ghost ? 0.12 : 0.5
  return (
    <g stroke="var(--ink)" strokeWidth={thin * 2} fill={ghost ? 'none' : 'var(--sheet)'} opacity={ghost ? 0.5 : 1}>
      <circle cx={at_m - 0.16} cy={-hung_m + 0.02} r={0.09} fill="var(--edge)" />
      <circle cx={at_m + 0.16} cy={-hung_m + 0.02} r={0.09} fill="var(--edge)" />
      <rect x={at_m - 0.26} y={-hung_m + 0.1} width={0.52} height={0.42} />
      <path d={`M${at_m} ${-hung_m + 0.52}V${-foot - (empty ? 0.5 : tall) - 0.25}`} strokeDasharray={`${thin * 5} ${thin * 3}`} />
      {empty ? (
        <path d={`M${at_m} ${-foot - 0.75}v0.25a0.14 0.14 0 1 1 -0.14 0.14`} fill="none" strokeWidth={thin * 4} />
      ) : (
        <>
          <path d={`M${at_m} ${-foot - tall - 0.25}l${-long / 2} 0.25m${long / 2} -0.25l${long / 2} 0.25`} fill="none" />
          <rect x={at_m - long / 2} y={-foot - tall} width={long} height={tall} fill={ghost ? 'none' : 'var(--accent)'} />
        </>
      )}
    </g>
  )
}

/** How the beam bends, worst over all of the travel, as an area under the floor. */
function Bent({
  machine,
  load_N,
  from,
  to,
  verdict,
  text,
}: {
  machine: RunwayMachine
  load_N: number
  from: number
  to: number
  verdict: Assessment['verdict'] | undefined
  text: number
}) {
  const say = useSay()
  const beam = beamOf(machine.runway)
  const { allowable_MPa, modulus_cm3 } = machine.runway.beam
  const end_m = beam.span_m + beam.overhang_m
  const allowed_Nm = allowable_MPa * modulus_cm3
  const [first, last] = [Math.min(from, to), Math.max(from, to)]
  const bends = (section: number) =>
    [first, last, Math.min(last, Math.max(first, section))].map((at) => bendingAt(beam, load_N, at, section))
  const base = 0.75
  const scale = 1.25 / allowed_Nm
  /** Hanging down between the supports, and up over the one that the beam passes. */
  const sides = [Math.max, Math.min].map((worst) =>
    Array.from({ length: pieces + 1 }, (_, i): [number, number] => {
      const section = (end_m * i) / pieces
      return [section, base + worst(0, ...bends(section)) * scale]
    }),
  )
  const shape = area<[number, number]>()
    .x((p) => p[0])
    .y0(base)
    .y1((p) => p[1])
    .curve(curveLinear)
    .digits(3)
  const { section_m, moment_Nm } = worstBending(beam, load_N, from, to)
  const ink = verdict ? verdictInk[verdict] : 'var(--quiet)'
  const y = base + (section_m < beam.span_m ? 1 : -1) * moment_Nm * scale
  return (
    <g aria-hidden="true">
      {sides.map((points, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: always the same two
        <path key={i} d={shape(points) ?? ''} fill={ink} opacity={0.25} />
      ))}
      <path d={`M0 ${base}H${end_m}`} stroke="var(--ink)" strokeWidth={text / 18} />
      <path
        d={`M0 ${base + 1.25}H${beam.span_m}`}
        stroke="var(--ink)"
        strokeWidth={text / 18}
        strokeDasharray={`${text / 3} ${text / 4}`}
      />
      <path d={`M${section_m} ${base}V${y}`} stroke={ink} strokeWidth={text / 6} />
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--sunk)" strokeWidth={text / 5} paintOrder="stroke">
        <text x={0} y={base - text * 0.35}>{t`How the beam bends`}</text>
        <text x={0} y={base + 1.25 + text * 1.15}>{t`as far as it may`}</text>
        <text x={section_m} y={base + 1.25 + text * 2.3} textAnchor="middle" fill={ink}>
          {t`${say('share', moment_Nm / allowed_Nm)} at ${say('length', section_m)}`}
        </text>
      </g>
    </g>
  )
}

/** A point of the travel: dragged along the beam, or moved with the arrow keys by 0.05 m, with Shift ten times as far. */
function BeamPoint({
  name,
  letter,
  at_m,
  least_m,
  most_m,
  y,
  size,
  spoken,
  onMove,
}: {
  name: string
  letter: string
  at_m: number
  least_m: number
  most_m: number
  y: number
  size: number
  spoken: string
  onMove: (at_m: number) => void
}) {
  const group = useRef<SVGGElement>(null)
  const put = (m: number) => onMove(Math.min(most_m, Math.max(least_m, Math.round(m * 20) / 20)))
  const bind = useDrag(
    ({ xy, first }) => {
      if (first) group.current?.focus()
      const p = underFinger(group.current, xy)
      // On this paper x runs along the beam.
      if (p) put(-p.y_m)
    },
    { pointer: { keys: false } },
  )
  const key = (e: KeyboardEvent) => {
    const way = e.key === 'ArrowRight' || e.key === 'ArrowUp' ? 1 : e.key === 'ArrowLeft' || e.key === 'ArrowDown' ? -1 : 0
    if (way === 0) return
    e.preventDefault()
    put(at_m + way * 0.05 * (e.shiftKey ? 10 : 1))
  }
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={at_m}
      aria-valuemin={least_m}
      aria-valuemax={most_m}
      aria-valuetext={spoken}
      className="group cursor-grab touch-none active:cursor-grabbing"
      {...bind()}
      onKeyDown={key}
    >
      <circle cx={at_m} cy={y} r={size * 2.2} fill="transparent" />
      <FocusRing x={at_m} y={y} size={size} />
      <g aria-hidden="true">
        <PointMark letter={letter} x={at_m} y={y} size={size} />
      </g>
    </g>
  )
}
