import type { Called, Course, EyePart, LoadRun, LoadSet, Machine, Rig } from '@geolabe/core'
import clsx from 'clsx'
import { useMemo, useRef, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Tick } from '../look/tick'
import { useSpoken } from '../signals/radio'
import { figureOf, unitOf, usePreferences, useSay } from '../units/units'
import { isOverDeck } from './cab-scene'
import { clockOf } from './clock'
import { useGiven } from './given'
import { LeverRow } from './lever-pad'
import { leversOf } from './levers'
import { Halted } from './on-machine'
import { Recorder } from './recorder'
import { useCreak } from './sound'
import type { How } from './use-rounds'
import { useRun } from './use-run'

/**
 * @param over more than may be
 * @param wide only where there is room
 */
export function Figure({ label, over, wide, children }: { label: string; over?: boolean; wide?: boolean; children: string }) {
  return (
    <div className={clsx(wide && 'max-sm:hidden')}>
      <dt className="text-[0.85rem] whitespace-nowrap text-quiet max-sm:text-[0.75rem]">{label}</dt>
      <dd
        className={clsx(
          'text-[1.7rem] leading-none font-bold whitespace-nowrap tabular-nums max-sm:text-[1.15rem]',
          over && 'text-outside underline',
        )}
      >
        {children}
      </dd>
    </div>
  )
}

const unaided_level = 0.5

/** From above, from the side, or from where the operator is. */
type View = 'plan' | 'side' | 'eye'

const eyeWords = (eye: EyePart | null) => (eye?.on === 'foot' ? t`As you stand` : t`From the cab`)

/** What is to be done, before it begins. */
function Opening({
  course: { swings, obstacles, people, wind, leverShare, blind },
  level,
}: {
  course: Course
  level: Rig['level']
}) {
  const say = useSay()
  const [start] = swings
  return (
    <>
      <p className="text-lg font-bold">{t`Set the load down in each ring, in turn.`}</p>
      {level && (
        <p className="mt-1">
          {t`Two hoists carry it, and one runs slower. Keep its ends within ${say('length', level.limit_m)}; at twice that it slips.`}
        </p>
      )}
      <p className="mt-1 empty:hidden">
        {[
          leverShare < 1 && t`Lever speed is set to ${Math.round(100 * leverShare)} %.`,
          obstacles.posts.length > 0 && t`Keep boom, rope and load clear of the posts.`,
          obstacles.walls.length > 0 && t`Lift over the wall.`,
          blind && t`One ring lies out of sight. There a signaller talks you in; do what is called, slowly.`,
          people.length > 0 && t`People cross the way. Let them over before you lift; never take a load over them.`,
          wind && t`Wind ${say('speed', wind.mean_mps)}, in gusts ${say('speed', wind.most_mps)}.`,
        ]
          .filter(Boolean)
          .join(' ')}
      </p>
      {start && (
        <p className="mt-1">
          {swings.length > 1
            ? t`It swings both ways as you begin.`
            : start.plane === 'across'
              ? t`It swings across the boom as you begin.`
              : t`It swings along the boom as you begin.`}{' '}
          {swings.length > 1
            ? t`Catch the wider first, then the other.`
            : start.inOne
              ? t`Catch it first, in one move.`
              : t`Catch it first; it is wider than one move takes.`}
        </p>
      )}
      <p className="mt-1 text-quiet max-sm:hidden">
        {t`Levers under your thumbs, the keys that stand on them, or the sticks of a gamepad. Shift is half; Space stops everything, Escape stops time.`}
      </p>
    </>
  )
}

/** What a signaller says while nobody at the controls sees the load, in large letters and aloud. */
function CalledOut({ called: { call, by_m }, under }: { called: Called; under: Rig['under'] }) {
  const { units } = usePreferences()
  // As somebody says it on a radio: nobody reads out centimetres.
  const far = `${figureOf(units, 'length', by_m, units === 'metric' && by_m < 2 ? 1 : 0)} ${unitOf(units, 'length').label}`
  const words = {
    left: t`Left, ${far}`,
    right: t`Right, ${far}`,
    out: under === 'frame' ? t`Forward, ${far}` : t`Out, ${far}`,
    in: under === 'frame' ? t`Back, ${far}` : t`In, ${far}`,
    lower: t`Lower, ${far}`,
    hoist: t`Up again, ${far}`,
    hold: t`Hold it there`,
  }[call]
  useSpoken(words)
  return (
    <p
      role="status"
      aria-label={t`Your signaller`}
      className="pointer-events-none absolute inset-x-0 bottom-14 mx-auto w-fit rounded-xl border-2 border-ink bg-paper px-4 py-2 text-[clamp(1.6rem,5vw,2.6rem)] leading-none font-bold"
    >
      {words}
    </p>
  )
}

/** The machine under its levers: seen from above and from its side, driven by thumbs or keys until the last ring is reached. */
export function Play({
  machine,
  rig,
  course,
  how,
  onOver,
  onLeave,
}: {
  machine: Machine
  rig: Rig
  course: Course
  /** With what an assessor has set. */
  how: How & { set: LoadSet | undefined }
  onOver: (run: LoadRun) => void
  onLeave: () => void
}) {
  const say = useSay()
  // Who is examined at a harder level sees how far the load is off its hook, as on the machine, without a figure.
  const unaided = useGiven() !== null && how.level >= unaided_level
  const [recorder] = useState(() => new Recorder(machine, rig, course, how))
  const levers = useMemo(() => leversOf(machine.controls, rig), [machine, rig])
  const plan = useRef<HTMLCanvasElement>(null)
  const side = useRef<HTMLCanvasElement>(null)
  const [view, setView] = useState<View>('plan')
  const [other, setOther] = useState<'side' | 'eye'>('side')
  const eye = machine.eye && isOverDeck(machine.eye, rig) ? machine.eye : null
  const beside = useMemo(() => ({ canvas: side, fromEye: other === 'eye' ? eye : null }), [other, eye])
  const [sound, setSound] = useState(false)
  const onHeard = useCreak(sound, course.allowed_m)
  const { state, told, push, go, pause } = useRun(recorder, machine, levers, plan, beside, onHeard, onOver)
  // A phone has one picture after another.
  const views: View[] = eye ? ['plan', 'side', 'eye'] : ['plan', 'side']
  const next = views[(views.indexOf(view) + 1) % views.length] ?? 'plan'
  const turnTo = (to: View) => {
    setView(to)
    if (to !== 'plan') setOther(to)
  }
  const { s, called } = told
  const clock = how.set?.clock
  const over_m = Math.max(0, s.load[2] - rig.deck_m - rig.load.half_m)
  const canvas = 'absolute inset-0 size-full'
  const frame = 'relative min-h-0 overflow-hidden rounded-xl border border-line'
  return (
    <div data-station="" className="flex min-h-0 grow flex-col gap-2 pb-2">
      <h1 className="sr-only">{t`Practice on ${machine.name}`}</h1>
      <dl className="flex flex-wrap items-end gap-x-6 gap-y-1 max-sm:flex-nowrap max-sm:justify-between max-sm:gap-x-2">
        {!unaided && <Figure label={t`Beside the hook`}>{called ? '–' : say('length', Math.hypot(...s.beside_m))}</Figure>}
        <Figure label={t`Over the deck`}>{called ? '–' : say('length', over_m)}</Figure>
        {rig.level && (
          <Figure label={t`Out of level`} over={Math.abs(s.apart_m) > rig.level.limit_m}>
            {say('length', Math.abs(s.apart_m))}
          </Figure>
        )}
        {clock !== 'hidden' && (
          <Figure
            label={clock === undefined ? t`Time` : t`Time left`}
            wide={rig.level !== null}
            over={clock !== undefined && told.time_s > clock}
          >
            {clock === undefined ? clockOf(told.time_s) : clockOf(Math.max(0, clock - told.time_s))}
          </Figure>
        )}
        {course.wind && (
          <Figure label={t`Wind, gusts`} wide>
            {t`${say('speed', course.wind.mean_mps)}, ${say('speed', course.wind.most_mps)}`}
          </Figure>
        )}
        <Figure label={t`Ring`}>{t`${told.ring} of ${course.legs.length}`}</Figure>
      </dl>
      <div className="relative grid min-h-72 grow gap-2 md:grid-cols-[3fr_2fr]">
        <div className={clsx(frame, view !== 'plan' && 'max-md:hidden')}>
          <canvas ref={plan} role="img" aria-label={t`From above: machine, rings and load`} className={canvas} />
        </div>
        <div className={clsx(frame, view === 'plan' && 'max-md:hidden')}>
          <canvas
            ref={side}
            role="img"
            aria-label={other === 'eye' ? eyeWords(eye) : t`From the side, along the boom`}
            className={canvas}
          />
          {eye && (
            <Button className="absolute top-2 right-2 max-md:hidden" onClick={() => setOther(other === 'eye' ? 'side' : 'eye')}>
              {other === 'eye' ? t`From the side` : eyeWords(eye)}
            </Button>
          )}
        </div>
        <Button className="absolute top-2 right-2 md:hidden" onClick={() => turnTo(next)}>
          {next === 'plan' ? t`From above` : next === 'side' ? t`From the side` : eyeWords(eye)}
        </Button>
        {state === 'going' && called && <CalledOut called={called} under={rig.under} />}
        {state === 'going' && <Button className="absolute right-2 bottom-2" onClick={pause}>{t`Pause`}</Button>}
        {state !== 'going' && (
          <div className="pointer-events-none absolute inset-0 grid place-items-center p-3 md:place-items-end md:content-end">
            <Halted
              ready={state === 'ready'}
              beside={<Tick checked={sound} onChange={setSound}>{t`Sound`}</Tick>}
              onGo={go}
              onLeave={onLeave}
            >
              <Opening course={course} level={rig.level} />
            </Halted>
          </div>
        )}
      </div>
      <LeverRow levers={levers} held={told.held} onPush={push} onStop={() => recorder.stop()} />
    </div>
  )
}
