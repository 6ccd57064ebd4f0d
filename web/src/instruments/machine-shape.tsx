import { type Machine, type Polygon, rad } from '@geolabe/core'
import { curveLinearClosed, line } from 'd3-shape'
import { pairPath, turned } from './frame'

const fills: Record<Polygon['shade'], string> = {
  body: 'var(--sunk)',
  cab: 'var(--water)',
  wheel: 'var(--edge)',
  dark: 'var(--quiet)',
  light: 'var(--sheet)',
}

function Shapes({ polygons, thin }: { polygons: readonly Polygon[]; thin: number }) {
  return polygons.map((p) => (
    <path
      key={p.name}
      d={pairPath(p.points)}
      fill={fills[p.shade]}
      stroke="var(--ink)"
      strokeWidth={thin}
      strokeLinejoin="round"
    />
  ))
}

/** The machine from above, drawn from its definition; what slews is turned with the boom. */
export function MachinePlan({ machine, slew_deg, thin }: { machine: Machine; slew_deg: number; thin: number }) {
  const { plan } = machine.outline
  return (
    <g aria-hidden="true">
      <Shapes polygons={plan.filter((p) => !p.slews)} thin={thin} />
      <g transform={turned(slew_deg)}>
        <Shapes polygons={plan.filter((p) => p.slews)} thin={thin} />
      </g>
    </g>
  )
}

/** The boom as it lies for the road: its shortest, at its least angle. */
function StowedBoom({ boom, thin }: { boom: NonNullable<Machine['boom']>; thin: number }) {
  const length = boom.lengths_m[0] ?? 0
  const angle = Math.min(0, boom.minAngle_deg) * rad
  const [x, z] = [-boom.pivot.back_m, boom.pivot.height_m]
  const d = `M${x} ${-z}L${x + length * Math.cos(angle)} ${-z - length * Math.sin(angle)}`
  return (
    <>
      <path d={d} stroke="var(--ink)" strokeWidth={0.62} strokeLinecap="round" />
      <path d={d} stroke="var(--sheet)" strokeWidth={0.62 - 2 * thin} strokeLinecap="round" />
    </>
  )
}

/** An outline seen from the side: heights go up. */
const upright = line<readonly [number, number]>()
  .y(([, z]) => -z)
  .curve(curveLinearClosed)

/** The machine from its left side; nose to the right. */
export function MachineSide({
  machine,
  thin,
  stowed,
}: {
  machine: { outline: Pick<Machine['outline'], 'side'>; boom?: Machine['boom'] | undefined }
  thin: number
  stowed?: boolean
}) {
  const draw = (slews: boolean) =>
    machine.outline.side
      .filter((p) => Boolean(p.slews) === slews)
      .map((p) => (
        <path
          key={p.name}
          d={upright(p.points) ?? ''}
          fill={fills[p.shade]}
          stroke="var(--ink)"
          strokeWidth={thin}
          strokeLinejoin="round"
        />
      ))
  return (
    <g aria-hidden="true">
      {draw(false)}
      {stowed && machine.boom && <StowedBoom boom={machine.boom} thin={thin} />}
      {draw(true)}
    </g>
  )
}
