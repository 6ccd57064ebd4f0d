import { type ArticulatedPose, type Crane, foldingOf, jointsOf, motionsOf, nominal, type PoseStep } from '@geolabe/core'
import { useDrag } from '@use-gesture/react'
import { type KeyboardEvent, useMemo, useRef } from 'react'
import { MachineSide } from '../instruments/machine-shape'
import { PointMark } from '../instruments/point-mark'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { poseAt } from './draft'

type Pair = readonly [number, number]

/** From the side: both booms in every pose, the head's way between them, where it stands furthest out. Heads are dragged. */
export function FoldingView({
  machine,
  step,
  onPose,
}: {
  machine: Crane
  step: PoseStep
  onPose: ((i: number, pose: ArticulatedPose) => void) | undefined
}) {
  const say = useSay()
  const f = useMemo(() => foldingOf(machine.boom), [machine.boom])
  const motions = useMemo(() => {
    try {
      return motionsOf(machine, step, 'step')
    } catch {
      return []
    }
  }, [machine, step])
  if (!f) return null
  const joints = step.waypoints.map((p) => jointsOf(f, p))
  const way = motions.flatMap(({ boom, boom_m, step: s }) => {
    const [a, b] = [nominal(s.pickUp.radius_m), nominal(s.setDown.radius_m)]
    return Array.from({ length: 17 }, (_, i): Pair => {
      const { radius_m, tip_height_m } = boom.poseAtRadius(boom_m, a + ((b - a) * i) / 16)
      return [radius_m, -tip_height_m]
    })
  })
  const far = way.reduce<Pair>((a, b) => (b[0] > a[0] ? b : a), way[0] ?? [0, 0])
  const heights = [...joints.flatMap((j) => [j.knuckle.height_m, j.head.height_m]), ...way.map(([, y]) => -y)]
  const side = machine.outline.side.flatMap((p) => p.points)
  const top = Math.max(5, ...heights) + 1.4
  const right = Math.max(far[0], ...joints.map((j) => j.head.out_m), ...side.map(([x]) => x)) + 1.4
  const left = Math.max(...side.map(([x]) => -x)) + 0.6
  const [width, height] = [right + left, top + 1.8]
  const thin = Math.max(width, height) / 380
  const text = Math.max(width, height) / 26
  const line = (points: readonly Pair[]) => `M${points.map(([x, y]) => `${x} ${y}`).join('L')}`
  return (
    <svg
      viewBox={`${-left} ${-top} ${width} ${height}`}
      className="block aspect-square max-h-[44dvh] w-full rounded-xl border border-line bg-paper select-none roomy:aspect-auto roomy:h-full roomy:max-h-none"
      role="group"
      aria-label={t`From the side: drag a head to pose both booms`}
    >
      <rect x={-9 * width} y={0} width={20 * width} height={9 * height} fill="var(--sunk)" />
      <path d={`M${-9 * width} 0H${11 * width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
      <MachineSide machine={machine} thin={thin * 1.4} />
      {way.length > 1 && (
        <g aria-hidden="true" fill="none">
          <path d={line(way)} stroke="var(--paper)" strokeWidth={thin * 9} />
          <path d={line(way)} stroke="var(--ink)" strokeWidth={thin * 3.5} strokeDasharray={`${thin * 10} ${thin * 6}`} />
          <path
            d={`M${far[0]} ${far[1]}V0`}
            stroke="var(--ink)"
            strokeWidth={thin * 1.6}
            strokeDasharray={`${thin * 4} ${thin * 4}`}
          />
          <text
            x={far[0]}
            y={text * 1.15}
            fontSize={text}
            fontWeight="650"
            textAnchor="middle"
            fill="var(--ink)"
            stroke="var(--sunk)"
            strokeWidth={thin * 4}
            paintOrder="stroke"
          >
            {say('length', far[0])}
          </text>
        </g>
      )}
      {joints.map(({ foot, knuckle, head }, i) => {
        const points: Pair[] = [foot, knuckle, head].map((j) => [j.out_m, -j.height_m] as const)
        const shown = i === 0 || i === joints.length - 1
        const [inner, outer] = [points.slice(0, 2), points.slice(1)]
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a pose is known by its place on the way
          <g key={i} opacity={shown ? 1 : 0.55}>
            <g strokeLinecap="round" aria-hidden="true">
              <path d={line(inner)} stroke="var(--ink)" strokeWidth={0.42} />
              <path d={line(inner)} stroke="var(--sheet)" strokeWidth={0.42 - thin * 3.4} />
              <path d={line(outer)} stroke="var(--ink)" strokeWidth={0.3} />
              <path d={line(outer)} stroke="var(--sheet)" strokeWidth={0.3 - thin * 3.4} />
            </g>
            <circle cx={knuckle.out_m} cy={-knuckle.height_m} r={0.16} fill="var(--ink)" aria-hidden="true" />
            <Head
              machine={machine}
              letter={i === 0 ? 'P' : i === joints.length - 1 ? 'S' : String(i)}
              pose={step.waypoints[i] as ArticulatedPose}
              at={head}
              size={text * 0.8}
              onPose={onPose && ((pose) => onPose(i, pose))}
            />
          </g>
        )
      })}
    </svg>
  )
}

const names: Record<string, string> = { P: t`Pick-up pose`, S: t`Set-down pose` }

/** The head of one pose: dragged with both booms after it, or moved by the arrow keys a tenth of a metre at a time. */
function Head({
  machine,
  letter,
  pose,
  at,
  size,
  onPose,
}: {
  machine: Crane
  letter: string
  pose: ArticulatedPose
  at: { out_m: number; height_m: number }
  size: number
  onPose: ((to: ArticulatedPose) => void) | undefined
}) {
  const say = useSay()
  const group = useRef<SVGGElement>(null)
  const to = (out_m: number, height_m: number) => {
    const there = poseAt(machine, pose, out_m, height_m)
    if (there) onPose?.(there)
  }
  const bind = useDrag(
    ({ xy: [clientX, clientY], first }) => {
      if (first) group.current?.focus()
      const matrix = group.current?.ownerSVGElement?.getScreenCTM()
      if (!matrix) return
      const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse())
      to(Math.round(x * 20) / 20, Math.round(-y * 20) / 20)
    },
    { pointer: { keys: false }, enabled: onPose !== undefined },
  )
  const steps: Record<string, Pair> = { ArrowUp: [0, 0.1], ArrowDown: [0, -0.1], ArrowLeft: [-0.1, 0], ArrowRight: [0.1, 0] }
  const key = (e: KeyboardEvent) => {
    const by = steps[e.key]
    if (!by) return
    e.preventDefault()
    to(at.out_m + by[0], at.height_m + by[1])
  }
  const marks = <PointMark letter={letter} x={at.out_m} y={-at.height_m} size={size} />
  if (!onPose) return <g aria-hidden="true">{marks}</g>
  return (
    <g
      ref={group}
      role="slider"
      tabIndex={0}
      aria-label={names[letter] ?? t`Pose ${letter}`}
      aria-valuenow={Math.round(at.out_m * 10) / 10}
      aria-valuetext={t`head ${say('length', at.out_m)} out, ${say('length', at.height_m)} up`}
      className="group cursor-move touch-none outline-none"
      {...bind()}
      onKeyDown={key}
    >
      <circle
        cx={at.out_m}
        cy={-at.height_m}
        r={size * 1.5}
        fill="transparent"
        stroke="var(--ink)"
        strokeWidth={size * 0.15}
        className="[stroke-opacity:0] group-focus-visible:[stroke-opacity:1]"
      />
      {marks}
    </g>
  )
}
