import { type Judged, type TruckMachine, usualPolicy, type WayItem } from '@geolabe/core'
import { useId } from 'react'
import { MachineSide } from '../instruments/machine-shape'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { useSay } from '../units/units'
import { Outcome } from './outcome'
import { opinionWords } from './words'

const surfaceWords: Record<WayItem['part']['surface'], string> = {
  dry: t`Dry floor.`,
  wet: t`Wet floor.`,
  'wet-steel': t`Wet steel plates.`,
  ice: t`Ice on it.`,
}

/** What is about to be driven over, and how. */
export function WayClaim({ item, machine }: { item: WayItem; machine: TruckMachine }) {
  const say = useSay()
  const { part, load, facing } = item
  const { grades } = machine.truck.chassis
  const steep = say('share', Math.abs(part.grade_pct) / 100)
  const { trucks } = usualPolicy
  return (
    <div>
      <p>{t`Somebody is about to drive it and says: it may go with`}</p>
      <p className="text-[1.3rem] leading-tight font-bold max-sm:text-[1.15rem]">
        {t`${say('mass', load.mass_kg)}, ${say('length', load.width_m)} wide, ${say('length', load.height_m)} high`}
      </p>
      <ul className="mt-1.5 leading-snug">
        <li>{t`Load carried ${say('length', item.height_m)} off the ground.`}</li>
        {part.grade_pct !== 0 && (
          <li>
            {facing === 'load-first' ? t`Ramp ${steep} up, load first.` : t`Ramp ${steep} down, load last.`}{' '}
            {part.cross_pct !== 0 && t`${say('share', Math.abs(part.cross_pct) / 100)} across.`}
          </li>
        )}
        {part.radius_m !== undefined && (
          <li>{t`Bend of ${say('length', part.radius_m)} radius, taken at ${say('speed', item.speed_mps)}.`}</li>
        )}
        <li>
          {t`Way ${say('length', part.width_m ?? 0)} wide.`}{' '}
          {part.height_m !== null && t`Door ${say('length', part.height_m)} high.`}
        </li>
        <li>{surfaceWords[part.surface]}</li>
      </ul>
      <p className="mt-1.5 text-[0.92rem] leading-snug text-quiet">
        {t`By its book ${say('share', grades.along_pct / 100)} up and ${say('share', grades.cross_pct / 100)} across. The site keeps ${say('length', trucks.sideGap_m)} beside and ${say('length', trucks.headGap_m)} above free, and carries no higher than ${say('length', trucks.travelFork_m)}.`}
      </p>
    </div>
  )
}

/** The truck from its side on its way, true to scale, with what is over it; below, how wide the way is to it from above. */
export function WayPicture({ item, machine }: { item: WayItem; machine: TruckMachine }) {
  const room = useId()
  const { part, load, facing } = item
  const { truck, outline } = machine
  const points = outline.side.flatMap((p) => p.points)
  const wheels = outline.side.filter((p) => p.shade === 'wheel').flatMap((p) => p.points.map(([x]) => x))
  const front = wheels.length > 0 ? Math.max(...wheels) - 0.3 : 0
  const tool = truck.boom ? (truck.attachments?.[0]?.ahead_m ?? 0) : 0
  const face = front + truck.faceToAxle_m + tool
  const [rear, tips] = [Math.min(...points.map(([x]) => x)), Math.max(face + load.length_m, ...points.map(([x]) => x))]
  const top = Math.max(part.height_m ?? 0, item.height_m + load.height_m, ...points.map(([, z]) => z))
  const rise = ((facing === 'load-first' ? 1 : -1) * part.grade_pct) / 100
  const long = tips - rear
  const [left, right] = [rear - 0.25 * long, tips + 0.25 * long]
  const width = right - left
  const up = top + Math.abs(rise) * width + 0.3
  const half = Math.max(part.width_m ?? 0, load.width_m, truck.chassis.width_m) / 2
  const plan = { y: Math.abs(rise) * (width / 2) + half + 0.9, body: truck.chassis.width_m / 2 }
  const height = up + plan.y + half + 0.4
  const thin = Math.max(width, height) / 400
  const way = facing === 'load-first' ? 1 : -1
  const middle = (rear + tips) / 2
  const wide = part.width_m ?? 0
  const arrow = (y: number) =>
    `M${middle - way * 0.3 * long} ${y}H${middle + way * 0.3 * long}m${-way * 0.25} -0.2l${way * 0.25} 0.2l${-way * 0.25} 0.2`
  return (
    <svg
      viewBox={`${left} ${-up} ${width} ${height}`}
      className="block h-full max-h-[44dvh] w-full rounded-xl border border-line bg-paper max-sm:max-h-[26dvh] roomy:max-h-none"
      role="img"
      aria-label={t`${machine.name} from its side as it would be driven, and the width of its way`}
    >
      <g transform={`rotate(${(-Math.atan(rise) * 180) / Math.PI} ${front} 0)`}>
        <rect x={left - width} y={0} width={3 * width} height={0.25} fill="var(--sunk)" />
        <path d={`M${left - width} 0H${right + width}`} stroke="var(--ink)" strokeWidth={thin * 3} />
        <MachineSide machine={machine} thin={thin * 1.4} />
        <rect
          x={face}
          y={-item.height_m - load.height_m}
          width={load.length_m}
          height={load.height_m}
          fill="var(--accent)"
          stroke="var(--ink)"
          strokeWidth={thin * 2}
        />
        {part.height_m !== null && (
          <rect
            x={way > 0 ? tips + 0.1 * long : rear - 0.2 * long}
            y={-5 * up}
            width={0.1 * long}
            height={5 * up - part.height_m}
            fill="var(--edge)"
            stroke="var(--ink)"
            strokeWidth={thin * 2}
          />
        )}
      </g>
      <g stroke="var(--ink)" strokeWidth={thin * 2}>
        <clipPath id={room}>
          <rect x={left - width} y={plan.y - half - 0.2} width={3 * width} height={2 * half + 0.4} />
        </clipPath>
        <g clipPath={`url(#${room})`}>
          {part.radius_m === undefined ? (
            <rect
              x={left - 2 * width}
              y={plan.y - wide / 2}
              width={5 * width}
              height={wide}
              fill="var(--sunk)"
              strokeWidth={thin * 4}
            />
          ) : (
            [part.radius_m + wide / 2, part.radius_m - wide / 2].map((r, i) => (
              <circle
                key={r}
                cx={middle}
                cy={plan.y + (part.radius_m ?? 0)}
                r={Math.max(0, r)}
                fill={i === 0 ? 'var(--sunk)' : 'var(--paper)'}
                strokeWidth={thin * 4}
              />
            ))
          )}
        </g>
        <rect x={rear} y={plan.y - plan.body} width={face - rear} height={2 * plan.body} fill="var(--sheet)" />
        <rect x={face} y={plan.y - load.width_m / 2} width={load.length_m} height={load.width_m} fill="var(--accent)" />
        <path d={arrow(plan.y)} fill="none" strokeWidth={thin * 4} />
      </g>
    </svg>
  )
}

/** Whether an answer was right, and how it reads elsewhere in the product. */
export function WayTold({ item, answer }: { item: WayItem; answer: Judged }) {
  const say = useSay()
  return (
    <Outcome item={item} answer={answer}>
      {item.wrong === 'nothing' ? (
        <p>{t`It may go: by slope, room, grip and speed.`}</p>
      ) : (
        <p>
          <strong>{t`${opinionWords[item.wrong]}.`}</strong>
        </p>
      )}
      {item.findings.slice(0, 1).map((f) => {
        const { what, todo } = findingWords(f, say)
        return (
          <p key={f.id}>
            {what} {todo}
          </p>
        )
      })}
    </Outcome>
  )
}
