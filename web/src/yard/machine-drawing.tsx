import type { YardMachine } from '@geolabe/contract'
import { MachineSide } from '../instruments/machine-shape'
import { t } from '../language/t'

/** A machine from its left, its boom stowed: to be known at a glance. */
export function MachineDrawing({ machine: m, className }: { machine: Pick<YardMachine, 'name' | 'drawing'>; className: string }) {
  const { outline, boom } = m.drawing
  const points = outline.side.flatMap((p) => p.points)
  const xs = [...points.map(([x]) => x), ...(boom ? [(boom.lengths_m[0] ?? 0) - boom.pivot.back_m + 0.4] : [])]
  const top = Math.max(...points.map(([, z]) => z), boom ? boom.pivot.height_m + 0.7 : 0)
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const thin = Math.max(right - left, top * 2) * 0.004
  return (
    <svg
      viewBox={`${left - 0.3} ${-top - 0.1} ${right - left + 0.6} ${top + 0.2}`}
      className={className}
      role="img"
      aria-label={t`${m.name} from the side`}
    >
      <path d={`M${left - 30} 0H${right + 30}`} stroke="var(--ink)" strokeWidth={thin} />
      <MachineSide machine={m.drawing} thin={thin} stowed />
    </svg>
  )
}
