import { type Assessment, high, type LiftPlan, nominal, type Standing, type StraddleMachine } from '@geolabe/core'
import { BearingPlan } from '../instruments/bearing-plan'
import { MachineSide } from '../instruments/machine-shape'
import { verdictInk } from '../instruments/verdict-ink'
import { t } from '../language/t'
import { StandMarks } from '../prove/stand-marks'
import { useSay } from '../units/units'
import { carryIn } from './draft'

type Frame = Extract<Standing, { on: 'frame' }>

/** The frame from its side with the boat in its slings, and from above with what each hoist and each wheel carries. */
export function StraddleView({
  machine,
  standing,
  lift,
  assessment,
}: {
  machine: StraddleMachine
  standing: Frame | null
  lift: LiftPlan | null
  assessment: Pick<Assessment, 'findings'> | null
}) {
  const say = useSay()
  const { straddle, each } = machine.hoists
  const { beams, wheels } = straddle
  const carry = lift ? carryIn(lift) : null
  const keel = carry ? high(carry.raised_m) : 2
  const { load } = lift?.hung ?? { load: null }
  const cg = load?.cg ?? null
  const long = load?.size?.length_m ?? 11
  const wide = load?.size?.width_m ?? 3.2
  const deep = Math.min(load?.size?.height_m ?? 3, beams.height_m - keel - 0.6)
  const stands = lift?.crew?.stands ?? []
  const room_m = 0.8
  const half = Math.max(7, long / 2 + 0.4, ...stands.map((s) => Math.abs(s.x_m) + room_m))
  const slings = each.map((h) => ({ ...h, x_m: standing?.hoists.find((x) => x.id === h.id)?.x_m ?? null }))
  const across = Math.max(...wheels.map((w) => Math.abs(w.y_m) + 2.6), ...stands.map((s) => Math.abs(s.y_m) + room_m))
  const top = straddle.height_m + 1.2
  const width = 2 * half + 1.6
  const height = top + 2 * across + 1.4
  const text = height / 30
  const thin = text / 14
  const found = (id: string) => assessment?.findings.find((f) => f.id === id) ?? null
  const marks = wheels.map((w) => {
    const f = found(`wheel:${w.id}`)
    return {
      ...w,
      use: f?.utilisation ?? null,
      verdict: f?.verdict ?? null,
      lines: f?.measured == null ? [] : [`${say('force', f.measured)} · ${say('share', f.utilisation ?? 0)}`],
    }
  })
  const middle = cg ? nominal(cg.x_m) : 0
  // A hull is drawn about its own middle, which nobody measured: near its centre of gravity.
  const hull = `M${-long / 2} ${-keel - deep}H${long / 2 - 0.2}L${long / 2 - 1.4} ${-keel - 0.15}Q${long / 2 - 1.9} ${-keel} ${long / 2 - 2.6} ${-keel}H${-long / 2 + 0.7}Q${-long / 2 + 0.2} ${-keel - 0.2} ${-long / 2} ${-keel - deep}Z`
  const planHull = `M${-long / 2} ${wide / 2}H${long / 2 - 3.4}Q${long / 2 - 0.8} ${wide / 2} ${long / 2} 0Q${long / 2 - 0.8} ${-wide / 2} ${long / 2 - 3.4} ${-wide / 2}H${-long / 2}Z`
  const floor = top
  const planMiddle = top + 1 + across
  return (
    <svg
      viewBox={`${-half} 0 ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name} from its side and from above${load ? t`, ${load.name || t`the boat`} in its slings` : ''}, with what hoists and wheels carry`}
    >
      <g transform={`translate(0 ${floor})`}>
        <path d={`M${-half} 0H${half + 1.6}`} stroke="var(--ink)" strokeWidth={thin * 3} />
        <MachineSide machine={machine} thin={thin * 1.4} />
        {load && (
          <g transform={`translate(${middle * 0.6} 0)`}>
            <path d={hull} fill="var(--accent)" stroke="var(--ink)" strokeWidth={thin * 2} opacity={0.92} />
          </g>
        )}
        {slings.map((s) =>
          s.x_m === null ? null : (
            <path
              key={s.id}
              d={`M${nominal(s.x_m)} ${-beams.height_m}V${-keel}`}
              stroke="var(--ink)"
              strokeWidth={thin * 5}
              strokeDasharray={load ? undefined : `${thin * 8} ${thin * 6}`}
            />
          ),
        )}
        {cg && (
          <circle
            cx={nominal(cg.x_m)}
            cy={-keel - nominal(cg.z_m)}
            r={text * 0.34}
            fill="var(--ink)"
            stroke="var(--sheet)"
            strokeWidth={thin * 2}
          />
        )}
        <g fontSize={text} fontWeight="700" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
          {slings.map((s) => {
            const f = found(`rating:${s.id}`)
            if (s.x_m === null) return null
            return (
              <text
                key={s.id}
                x={nominal(s.x_m) + (nominal(s.x_m) > 0 ? -text * 1.5 : text * 1.5)}
                y={-straddle.height_m - text * 0.45}
                textAnchor={nominal(s.x_m) > 0 ? 'start' : 'end'}
                fill={f ? verdictInk[f.verdict] : 'var(--ink)'}
              >
                {f?.measured == null ? s.label : `${say('mass', f.measured)} · ${say('share', f.utilisation ?? 0)}`}
              </text>
            )
          })}
        </g>
      </g>
      <g transform={`translate(0 ${planMiddle})`}>
        <BearingPlan marks={marks} size_m={1.1} cg={cg} text={text}>
          <g stroke="var(--edge)" strokeWidth={thin * 5} fill="none">
            {[1, -1].map((side) => (
              <path key={side} d={`M${-half + 0.8} ${side * (beams.apart_m / 2)}H${half - 0.8}`} />
            ))}
          </g>
          {load && (
            <path
              d={planHull}
              transform={`translate(${middle * 0.6} ${cg ? -nominal(cg.y_m) : 0})`}
              fill="var(--accent)"
              opacity={0.35}
              stroke="var(--ink)"
              strokeWidth={thin * 1.6}
            />
          )}
          {slings.map((s) =>
            s.x_m === null ? null : (
              <path
                key={s.id}
                d={`M${nominal(s.x_m)} ${-beams.apart_m / 2}V${beams.apart_m / 2}`}
                stroke="var(--ink)"
                strokeWidth={thin * 4}
              />
            ),
          )}
        </BearingPlan>
        <StandMarks stands={stands} assessment={assessment} text={text} />
        <text x={half + 1.4} y={text * 0.35} textAnchor="end" fontSize={text * 0.9} fill="var(--quiet)">{t`front`}</text>
      </g>
    </svg>
  )
}
