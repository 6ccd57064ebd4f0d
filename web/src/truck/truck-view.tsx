import { type Assessment, axlesOf, balanceOf, type LiftPlan, marginsOf, nominal, type TruckMachine } from '@geolabe/core'
import { MachineSide } from '../instruments/machine-shape'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { mastOf } from './draft'

/** The truck from its side with the load where it is stacked, both axles as bars below, and its triangle with the weight's place from above. */
export function TruckView({
  machine,
  lift,
  fitted,
  assessment,
}: {
  machine: TruckMachine
  lift: LiftPlan | null
  fitted: Parameters<typeof balanceOf>[1]
  assessment: Pick<Assessment, 'findings'> | null
}) {
  const say = useSay()
  const { truck } = machine
  const { chassis } = truck
  const pose = lift ? (mastOf(lift).waypoints.at(-1) ?? null) : null
  const at = pose ?? { height_m: 0, tilt_deg: 0, sideShift_m: 0 }
  const { mass_kg, cg, size } = lift?.hung.load ?? { mass_kg: null, cg: undefined, size: undefined }
  const load =
    mass_kg === null || !cg
      ? null
      : { mass_kg: nominal(mass_kg), x_m: nominal(cg.x_m), y_m: nominal(cg.y_m), z_m: nominal(cg.z_m) }
  const b = balanceOf(truck, fitted, load, at)
  // An arm reaches out to the load's middle; on forks it stands against their face.
  const [margins, axles] = [marginsOf(truck, b), axlesOf(truck, b)]
  const points = machine.outline.side.flatMap((p) => p.points)
  const front = frontWheel(machine)
  const face = front + truck.faceToAxle_m + (fitted.tool?.ahead_m ?? 0)
  const [long, tall] = [size?.length_m ?? 1.2, size?.height_m ?? 1]
  const loadFrom = truck.boom && load ? face + load.x_m - long / 2 : face
  const top = Math.max(3, at.height_m + tall + 0.5, ...points.map(([, z]) => z + 0.4))
  const left = Math.min(...points.map(([x]) => x)) - 0.5
  const right = Math.max(loadFrom + Math.max(long, chassis.fork_m ?? 1.2) + 0.5, ...points.map(([x]) => x + 0.3))
  const below = Math.max(3.2, chassis.wheelbase_m * 0.9 + 2)
  const [width, height] = [right - left, top + below]
  const thin = Math.max(width, height) / 400
  const text = Math.max(width, height) / 27
  const used = (id: string) => assessment?.findings.find((f) => f.id === id)?.utilisation ?? null
  const plan = below * 0.62
  const y = (m: number) => plan + m
  const rear = front - chassis.wheelbase_m
  const half = chassis.frontHalfTrack_m
  const said = t`${machine.name} from its side${load ? t`, ${say('mass', load.mass_kg)} at ${say('length', at.height_m)}` : t`, forks empty`}; ${say('length', margins.front_m)} to its front edge`
  return (
    <svg
      viewBox={`${left} ${-top} ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="img"
      aria-label={said}
    >
      <rect x={left - width} y={0} width={3 * width} height={below} fill="var(--sunk)" />
      <path d={`M${left - width} 0H${right + width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <MachineSide machine={machine} thin={thin * 1.4} />
      <g stroke="var(--ink)" strokeWidth={thin * 2}>
        {truck.boom && load && (
          <path
            d={`M${front - 0.6} ${-chassis.cgHeight_m - 1}L${face + load.x_m} ${-at.height_m - tall}`}
            strokeWidth={thin * 7}
          />
        )}
        {!truck.boom && at.height_m > 0.2 && (
          <path d={`M${face} ${-at.height_m}H${face + (chassis.fork_m ?? 1.2)}`} strokeWidth={thin * 5} />
        )}
        {!truck.boom && at.height_m > 1.6 && (
          <path d={`M${face - 0.12} 0V${-at.height_m - 0.8}M${face - 0.26} 0V${-at.height_m - 0.8}`} strokeWidth={thin * 3} />
        )}
        {load && (
          <>
            <rect x={loadFrom} y={-at.height_m - tall} width={long} height={tall} fill="var(--accent)" />
            <circle cx={face + load.x_m} cy={-at.height_m - load.z_m} r={text * 0.22} fill="var(--ink)" />
          </>
        )}
      </g>
      <g fontSize={text} fontWeight="650" fill="var(--ink)" stroke="var(--paper)" strokeWidth={thin * 4} paintOrder="stroke">
        {load && (
          <text
            x={loadFrom + long / 2}
            y={-at.height_m - tall - text * 0.4}
            textAnchor="middle"
          >{t`${say('length', at.height_m)} up`}</text>
        )}
      </g>
      {/* Its triangle from above, and where everything weighs together. */}
      <g aria-hidden="true">
        <path
          d={`M${front} ${y(-half)}V${y(half)}L${rear} ${y(0)}Z`}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={thin * 2.4}
        />
        <path
          d={`M${front + b.xFront_m} ${y(0)}H${front}`}
          stroke="var(--ink)"
          strokeWidth={thin * 1.6}
          strokeDasharray={`${thin * 5} ${thin * 4}`}
        />
        <circle
          cx={front + b.xFront_m}
          cy={y(-b.y_m)}
          r={text * 0.42}
          fill={margins.front_m > 0 && margins.side_m > 0 ? 'var(--inside)' : 'var(--outside)'}
          stroke="var(--sheet)"
          strokeWidth={thin * 2}
        />
        <g
          fontSize={text * 0.95}
          fontWeight="650"
          fill="var(--ink)"
          stroke="var(--sunk)"
          strokeWidth={thin * 4}
          paintOrder="stroke"
        >
          <text x={front + 0.12} y={y(text * 0.35)}>{t`${say('length', margins.front_m)} to the front`}</text>
          {(['front', 'rear'] as const).map((axle) => {
            // Each on its own side of the middle, so that neither lies on the other.
            const x = (front + rear) / 2 + (axle === 'front' ? text * 0.4 : -text * 0.4)
            const share = used(`axle:${axle}`)
            return (
              <text key={axle} x={x} y={y(half + text * 1.25)} textAnchor={axle === 'front' ? 'start' : 'end'}>
                {say('mass', Math.max(0, axles[`${axle}_kg`]))}
                {share === null ? '' : ` · ${say('share', share)}`}
              </text>
            )
          })}
        </g>
      </g>
    </svg>
  )
}

/** Where the front wheels stand in its outline: the foremost wheel's middle. */
function frontWheel(machine: TruckMachine): number {
  const wheels = machine.outline.side.filter((p) => p.shade === 'wheel')
  const middles = wheels.map((p) => p.points.reduce((s, [x]) => s + x, 0) / p.points.length)
  return middles.length > 0 ? Math.max(...middles) : 0
}
