import { type BoomPose, type Crane, Refusal, straightBoom } from '@geolabe/core'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { BoomSections, MachineSide } from './machine-shape'

/** From the side: boom at its angle, tip height, radius, and the load on its rope. True to scale. */
export function SideView({
  machine,
  boom_m,
  radius_m,
  deflection_m,
  label,
}: {
  machine: Crane
  boom_m: number
  radius_m: number
  deflection_m: number
  label: string
}) {
  const say = useSay()
  let pose: BoomPose | null = null
  try {
    pose = straightBoom(machine.boom).poseAtRadius(boom_m, radius_m, deflection_m)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
  }
  const tip_m = pose?.tip_height_m ?? boom_m * 0.5
  const side = machine.outline.side.flatMap((p) => p.points)
  const top = Math.max(3, tip_m + Math.min(2.5, 0.6 + tip_m * 0.2))
  const right = Math.max(radius_m + Math.min(3, 0.8 + radius_m * 0.2), ...side.map(([x]) => x + 0.4))
  const left = Math.max(1.5, ...side.map(([x]) => 0.4 - x))
  /** A load as large as a boom of this length lifts. */
  const load_m = Math.min(1.4, Math.max(0.4, boom_m * 0.1))
  const hangs_m = Math.min(2, tip_m * 0.35)
  const width = right + left
  const height = top + Math.min(2.6, top * 0.25)
  const thin = Math.max(width, height) / 380
  const text = Math.max(width, height) / 26
  const back = machine.boom.pivot.back_m
  const said = pose
    ? t`${label}: boom ${say('angle', pose.angle_deg)}, tip ${say('length', pose.tip_height_m)} up`
    : t`${label}: the boom does not reach`
  return (
    <svg
      viewBox={`${-left} ${-top} ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={said}
    >
      <rect x={-9 * width} y={0} width={20 * width} height={9 * height} fill="var(--sunk)" />
      <path d={`M${-9 * width} 0H${11 * width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <MachineSide machine={machine} thin={thin * 1.4} />
      {pose ? (
        <>
          <BoomSections
            boom={machine.boom}
            foot={[-back, -machine.boom.pivot.height_m]}
            tip={[radius_m - deflection_m, -pose.tip_height_m]}
            thin={thin}
          />
          <path d={`M${radius_m} ${-pose.tip_height_m}V${-hangs_m}`} stroke="var(--ink)" strokeWidth={thin * 2} />
          <rect
            x={radius_m - load_m / 2}
            y={-hangs_m}
            width={load_m}
            height={load_m * 0.85}
            fill="var(--accent)"
            stroke="var(--ink)"
            strokeWidth={thin * 2}
          />
          <g fontSize={text} fill="var(--ink)" fontWeight="650" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
            <text
              x={radius_m}
              y={-pose.tip_height_m - text * 0.6}
              textAnchor={radius_m > width * 0.5 ? 'end' : 'middle'}
            >{t`${say('length', pose.tip_height_m)} up`}</text>
            <text x={1.6} y={-machine.boom.pivot.height_m - text * 0.2}>
              {say('angle', pose.angle_deg)}
            </text>
            <text x={radius_m / 2} y={text * 1.25} textAnchor="middle" stroke="var(--sunk)">
              {say('length', radius_m)}
            </text>
          </g>
          <path
            d={`M0 ${text * 0.25}H${radius_m}M0 0v${text * 0.5}M${radius_m} 0v${text * 0.5}`}
            stroke="var(--ink)"
            strokeWidth={thin * 1.5}
            fill="none"
          />
        </>
      ) : (
        <text
          x={width / 2 - left}
          y={-top / 2}
          fontSize={text * 1.1}
          textAnchor="middle"
          fill="var(--outside)"
          fontWeight="700"
        >{t`The boom does not reach`}</text>
      )}
    </svg>
  )
}
