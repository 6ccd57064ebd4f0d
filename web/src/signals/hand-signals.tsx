import {
  type AskedSignal,
  type DrawnSignal,
  isByEitherArm,
  type ProcedureStep,
  type Prompt,
  type SignallersWay,
} from '@geolabe/core'
import { t, told } from '../language/t'

/** An arm: from the shoulder and from the elbow, degrees outward from straight down; 180: straight up. */
type Arm = readonly [upper_deg: number, fore_deg: number]
/** What a hand does: nothing, goes round slowly, goes outward or inward and back, goes up and down, or beckons. */
type Motion = 'round' | 'fro' | 'inward' | 'nods' | 'beckons'

type Pose = Pick<Signal, 'right' | 'left' | 'moves'>

interface Signal {
  id: DrawnSignal
  meaning: string
  /** How it is done, in words. */
  how: string
  /** The same by somebody left-handed, where one arm tells no side. */
  howLeft?: string
  /** The signaller's own right and left. */
  right: Arm
  left: Arm
  moves?: { right?: Motion; left?: Motion }
}

const hangs: Arm = [12, 8]

/** Hand signals as they are agreed before a lift. */
const signals: readonly Signal[] = [
  {
    id: 'attention',
    meaning: t`Watch me`,
    how: t`Both arms out level, palms forward.`,
    right: [90, 90],
    left: [90, 90],
  },
  {
    id: 'hoist',
    meaning: t`Hoist`,
    how: t`Right arm up, the hand goes round slowly.`,
    howLeft: t`Left arm up, the hand goes round slowly.`,
    right: [165, 175],
    left: hangs,
    moves: { right: 'round' },
  },
  {
    id: 'lower',
    meaning: t`Lower`,
    how: t`Right arm down, the hand goes round slowly.`,
    howLeft: t`Left arm down, the hand goes round slowly.`,
    right: [35, 28],
    left: hangs,
    moves: { right: 'round' },
  },
  {
    id: 'right',
    meaning: t`To my right`,
    how: t`Right arm out, the hand goes that way and back.`,
    right: [88, 92],
    left: hangs,
    moves: { right: 'fro' },
  },
  {
    id: 'left',
    meaning: t`To my left`,
    how: t`Left arm out, the hand goes that way and back.`,
    right: hangs,
    left: [88, 92],
    moves: { left: 'fro' },
  },
  {
    id: 'stop',
    meaning: t`Stop`,
    how: t`Right arm straight up, palm forward, still.`,
    howLeft: t`Left arm straight up, palm forward, still.`,
    right: [176, 180],
    left: hangs,
  },
  {
    id: 'emergency',
    meaning: t`Emergency stop`,
    how: t`Both arms straight up, palms forward, still.`,
    right: [172, 178],
    left: [172, 178],
  },
  {
    id: 'end',
    meaning: t`Done, secured`,
    how: t`Both hands together before the chest.`,
    right: [28, 250],
    left: [28, 250],
  },
]

/** For a boom or a trolley, and for less speed. */
const booming: readonly Signal[] = [
  {
    id: 'boom-up',
    meaning: t`Boom up`,
    how: t`Right arm out, forearm up, the hand goes up and back.`,
    howLeft: t`Left arm out, forearm up, the hand goes up and back.`,
    right: [88, 178],
    left: hangs,
    moves: { right: 'nods' },
  },
  {
    id: 'boom-down',
    meaning: t`Boom down`,
    how: t`Right arm out, forearm down, the hand goes down and back.`,
    howLeft: t`Left arm out, forearm down, the hand goes down and back.`,
    right: [88, 2],
    left: hangs,
    moves: { right: 'nods' },
  },
  {
    id: 'out',
    meaning: t`Out`,
    how: t`Both elbows in, forearms out, the hands go apart and back.`,
    right: [12, 98],
    left: [12, 98],
    moves: { right: 'fro', left: 'fro' },
  },
  {
    id: 'in',
    meaning: t`In`,
    how: t`Both elbows out, forearms up, the hands come together and back.`,
    right: [92, 196],
    left: [92, 196],
    moves: { right: 'inward', left: 'inward' },
  },
  {
    id: 'slow',
    meaning: t`Slowly`,
    how: t`Both arms out low, palms down, the hands pat the air.`,
    right: [56, 62],
    left: [56, 62],
    moves: { right: 'nods', left: 'nods' },
  },
]

/** For what travels as it is signalled. */
const travelling: readonly Signal[] = [
  {
    id: 'forward',
    meaning: t`Forward, towards me`,
    how: t`Both hands up before the shoulders, palms inward, beckoning.`,
    right: [38, 205],
    left: [38, 205],
    moves: { right: 'beckons', left: 'beckons' },
  },
  {
    id: 'back',
    meaning: t`Back, away from me`,
    how: t`Both arms out low, palms outward, pushing away.`,
    right: [62, 100],
    left: [62, 100],
    moves: { right: 'fro', left: 'fro' },
  },
]

/** All that an operator can be asked. */
const asked = [...signals, ...booming]

const [shoulder_x, shoulder_y, upper, fore] = [9, 30, 17, 16]

/** Where elbow and hand are; `side` −1: on the reader's left, the signaller's right. */
function armAt([up_deg, fore_deg]: Arm, side: -1 | 1) {
  const along = (deg: number, long: number) =>
    [side * long * Math.sin((deg * Math.PI) / 180), long * Math.cos((deg * Math.PI) / 180)] as const
  const [ux, uy] = along(up_deg, upper)
  const [fx, fy] = along(fore_deg, fore)
  const [ex, ey] = [side * shoulder_x + ux, shoulder_y + uy]
  return { elbow: [ex, ey] as const, hand: [ex + fx, ey + fy] as const }
}

function ArmDrawn({ arm, side, moves, gloved }: { arm: Arm; side: -1 | 1; moves: Motion | undefined; gloved: boolean }) {
  const {
    elbow: [ex, ey],
    hand: [hx, hy],
  } = armAt(arm, side)
  return (
    <>
      <path d={`M${side * shoulder_x} ${shoulder_y}L${ex} ${ey}L${hx} ${hy}`} />
      <circle cx={hx} cy={hy} r={gloved ? 5 : 3.6} fill={gloved ? 'var(--quiet)' : 'var(--accent)'} strokeWidth="1.6" />
      {moves === 'round' && <ellipse cx={hx} cy={hy} rx="9" ry="4" strokeWidth="1.6" strokeDasharray="3 2.4" />}
      {moves === 'beckons' && (
        <path
          d={`M${hx + side * 14} ${hy - 8}q${-side * 2} 8 ${-side * 9} 9m${side * 5} -3.5l${-side * 5} 3.5l${side * 4} 4`}
          strokeWidth="1.8"
        />
      )}
      {moves === 'fro' && (
        <path d={`M${hx + side * 5} ${hy}h${side * 9}m${-side * 4} -3.5l${side * 4} 3.5l${-side * 4} 3.5`} strokeWidth="1.8" />
      )}
      {moves === 'inward' && (
        <path d={`M${hx - side * 5} ${hy}h${-side * 9}m${side * 4} -3.5l${-side * 4} 3.5l${side * 4} 3.5`} strokeWidth="1.8" />
      )}
      {moves === 'nods' && (
        <path d={`M${hx + side * 9} ${hy - 6}v12m-3.5 -4l3.5 4l3.5 -4m-7 -4l3.5 -4l3.5 4`} strokeWidth="1.8" />
      )}
    </>
  )
}

const Figure = ({
  pose: { right, left, moves },
  gloved = false,
  className,
}: {
  pose: Pose
  gloved?: boolean
  className: string
}) => (
  <svg viewBox="-52 -14 104 104" className={className} aria-hidden="true">
    <g fill="none" stroke="var(--ink)" strokeWidth="5" strokeLinecap="round" strokeLinejoin="round">
      <path d={`M${-shoulder_x} ${shoulder_y}H${shoulder_x}L6 56H-6Z`} fill="var(--sunk)" strokeWidth="3" />
      <path d="M-4 58L-7 86M4 58L7 86" />
      <circle cx="0" cy="17" r="7.5" fill="var(--sheet)" strokeWidth="3" />
      <ArmDrawn arm={right} side={-1} moves={moves?.right} gloved={gloved} />
      <ArmDrawn arm={left} side={1} moves={moves?.left} gloved={gloved} />
    </g>
  </svg>
)

/** Hands on the hips: no signal that anybody agreed. */
const unknown: Pose & { how: string } = { how: t`Both hands on the hips.`, right: [48, 300], left: [48, 300] }

/** What a signal means. */
export const meaningOf = (id: Prompt['signal']): string =>
  asked.find((s) => s.id === id)?.meaning ?? t`A signal that nobody agreed`

/** Somebody signalling, as the operator sees them; said by what their arms do. */
export function Signaller({
  signal,
  way = { leftHanded: false, gloved: false },
  className,
}: {
  signal: Prompt['signal']
  way?: SignallersWay
  className: string
}) {
  const found = asked.find((s) => s.id === signal)
  const { right, left, moves } = found ?? unknown
  const other = way.leftHanded && found !== undefined && isByEitherArm(found.id)
  const pose: Pose = other
    ? { right: left, left: right, ...(moves?.right ? { moves: { left: moves.right } } : {}) }
    : (found ?? unknown)
  return (
    <div role="img" aria-label={(other && found?.howLeft) || (found ?? unknown).how} className={className}>
      <Figure pose={pose} gloved={way.gloved} className="size-full" />
    </div>
  )
}

/** Signals that a step has agreed, drawn side by side, each with what it means here. */
export function AgreedSignals({ signals: agreed }: { signals: ProcedureStep['signals'] }) {
  return (
    <ul className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(3.3rem,1fr))] gap-1">
      {agreed.map(({ drawn, means }) => {
        const pose = [...asked, ...travelling].find((s) => s.id === drawn) ?? unknown
        return (
          <li key={drawn} className="rounded-lg border border-line bg-sheet py-1 text-center">
            <div role="img" aria-label={pose.how}>
              <Figure pose={pose} className="mx-auto w-full max-w-28" />
            </div>
            <strong className="block text-[0.82rem] leading-tight sm:text-[0.92rem]">{told(means)}</strong>
          </li>
        )
      })}
    </ul>
  )
}

/**
 * Every signal as whoever looks at the signaller sees it, with what it means and how it is done.
 *
 * @param without those that this machine has no motion for
 */
export function HandSignals({ without = [] }: { without?: readonly AskedSignal[] }) {
  return (
    <div>
      <ul className="grid gap-x-4 gap-y-2 sm:grid-cols-2">
        {asked
          .filter((s) => !without.some((w) => w === s.id))
          .map((s) => (
            <li key={s.id} className="flex items-center gap-3">
              <Figure pose={s} className="h-24 w-28 shrink-0" />
              <span>
                <strong className="block text-lg leading-tight">{s.meaning}</strong>
                <span className="text-[0.95rem] text-quiet">{s.how}</span>
              </span>
            </li>
          ))}
      </ul>
      <p className="mt-2 text-[0.95rem] text-quiet">
        {t`As you see whoever signals: their right hand is on your left. Where your law, site or team has others, agree those. A signal that was never agreed is a stop.`}
      </p>
    </div>
  )
}
