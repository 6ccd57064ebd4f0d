import { type Assessment, type LiftPlan, nominal, type Tower } from '@geolabe/core'
import { MachineSide } from '../instruments/machine-shape'
import { t } from '../language/t'
import { verdictTone } from '../look/verdict'
import { useSay } from '../units/units'
import { towOf } from './draft'

/** From its side: the arm drawn out to where it lifts, the vehicle on it, and both axles as bars against their plates. */
export function TowView({
  machine,
  lift,
  assessment,
}: {
  machine: Tower
  lift: LiftPlan
  assessment: Pick<Assessment, 'findings'> | null
}) {
  const say = useSay()
  const step = towOf(lift)
  const [front, rear] = (['front', 'rear'] as const).map((id) => machine.wheels.axles.find((a) => a.id === id))
  if (!front || !rear) return null
  const size = lift.hung.load.size
  const points = machine.outline.side.flatMap((p) => p.points)
  const out_m = nominal(step.overhang_m)
  const arm = rear.x_m - out_m
  const follows = step.toAxle_m === null ? 2.8 : nominal(step.toAxle_m)
  const [long, tall] = [Math.max(size?.length_m ?? 4.5, follows + 0.9), size?.height_m ?? 1.6]
  const left = arm - long - 0.6
  const { stowed } = machine.tow
  const { pivot } = machine.boom
  const right = Math.max(stowed.boom_m - pivot.back_m, ...points.map(([x]) => x)) + 0.5
  const top = Math.max(tall + 0.8, ...points.map(([, z]) => z + 0.4))
  const below = (right - left) * 0.3
  const [width, height] = [right - left, top + below]
  const thin = width / 420
  const text = width / 30
  const raised = 0.35
  const found = (id: string) => assessment?.findings.find((f) => f.id === id) ?? null
  const tilt = (-Math.atan2(raised, follows) * 180) / Math.PI
  const lifted = step.lifted_kg === null ? null : nominal(step.lifted_kg)
  return (
    <svg
      viewBox={`${left} ${-top} ${width} ${height}`}
      className="block aspect-[4/3] max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name} from its side, its arm ${say('length', out_m)} behind the rear axle${lifted === null ? '' : t`, ${say('mass', lifted)} on it`}`}
    >
      <rect x={left - width} y={0} width={3 * width} height={below + height} fill="var(--sunk)" />
      <path d={`M${left - width} 0H${right + width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <MachineSide machine={machine} thin={thin * 1.4} />
      <path
        d={`M${-pivot.back_m} ${-pivot.height_m}l${stowed.boom_m * Math.cos((stowed.angle_deg * Math.PI) / 180)} ${-stowed.boom_m * Math.sin((stowed.angle_deg * Math.PI) / 180)}`}
        stroke="var(--ink)"
        strokeWidth={thin * 10}
      />
      <g stroke="var(--ink)" strokeWidth={thin * 2}>
        <path d={`M${rear.x_m - 1.4} ${-0.75}L${arm} ${-raised - 0.1}`} strokeWidth={thin * 8} />
        <g transform={`rotate(${tilt} ${arm - follows} 0)`}>
          <rect x={arm - long + 0.7} y={-tall} width={long} height={tall - 0.35} rx={0.25} fill="var(--accent)" />
          <circle cx={arm} cy={-0.34} r={0.34} fill="var(--edge)" />
          <circle cx={arm - follows} cy={-0.34} r={0.34} fill="var(--edge)" />
        </g>
      </g>
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--sunk)" strokeWidth={thin * 4} paintOrder="stroke">
        <path
          d={`M${arm} ${text * 0.7}H${rear.x_m}M${arm} ${text * 0.4}v${text * 0.6}M${rear.x_m} ${text * 0.4}v${text * 0.6}`}
          stroke="var(--ink)"
          strokeWidth={thin * 1.4}
          fill="none"
        />
        <text x={(arm + rear.x_m) / 2} y={text * 1.9} textAnchor="middle">
          {say('length', out_m)}
        </text>
        {[rear, front].map((axle) => {
          const f = found(`axle:${axle.id}`)
          const share = f?.utilisation ?? null
          const long_m = width * 0.44
          const x = axle.id === 'rear' ? left + width * 0.03 : right - long_m - width * 0.03
          const y = text * 3.2
          return (
            <g key={axle.id}>
              <rect
                x={x}
                y={y}
                width={long_m}
                height={text * 0.7}
                fill="var(--sheet)"
                stroke="var(--ink)"
                strokeWidth={thin * 1.6}
              />
              {share !== null && f && (
                <rect
                  x={x}
                  y={y}
                  width={long_m * Math.min(1, share)}
                  height={text * 0.7}
                  fill={`var(--${f.verdict === 'not-proven' ? 'unproven' : f.verdict})`}
                  stroke="none"
                />
              )}
              <text x={x} y={y + text * 1.8}>
                {axle.label}
              </text>
              <text x={x} y={y + text * 3} className={f ? verdictTone[f.verdict].text : ''}>
                {f?.measured == null ? t`not known` : `${say('mass', f.measured)} · ${say('share', share ?? 0)}`}
              </text>
            </g>
          )
        })}
      </g>
    </svg>
  )
}
