import {
  allOff,
  bendSpeeds,
  centred_m,
  comesUp,
  type DriveRule,
  type DriveRun,
  type DriverSwitch,
  driverSwitches,
  drivingMotions,
  lookAhead,
  type Machine,
  type Pick,
  type TruckEdge,
  truckEdges,
} from '@geolabe/core'
import clsx from 'clsx'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { t } from '../language/t'
import { Button } from '../look/button'
import { useSay } from '../units/units'
import { clockOf } from './clock'
import { DriveAfter } from './drive-after'
import { DriveRecorder } from './drive-recorder'
import { drawDrive, drawTriangle } from './drive-scene'
import { padKeys, usePadThere } from './gamepad'
import { useRunId } from './given'
import { newSeed } from './level'
import { LeverRow } from './lever-pad'
import { drivingLeversOf } from './levers'
import { onKeys } from './on-keys'
import { Halted, NotOffered, OnMachine } from './on-machine'
import { Figure } from './play'
import { sheetOf } from './scene'
import { usePictures } from './use-pictures'
import { orRefused, useRounds } from './use-rounds'
import { useSoFar } from './use-so-far'
import { useTurn } from './use-turn'
import { edgeWords } from './words'

/** A load taken along a lane, round a blind corner, to its place: with the truck's own wheel, pedals and levers. */
export const DriveOn = () => (
  <OnMachine game="drive">{(f, level) => <Rounds key={f.definition.revision} machine={f.definition} level={level} />}</OnMachine>
)

/** What is due and comes up on some courses only. */
const sometimes: readonly DriveRule[] = ['door-horn', 'view-blocked', 'load-uphill', 'look-back']

/** A course that nobody has had yet, on which what is due comes up: if it is found soon, for not everything does at once. */
function seedFor({ truck }: Machine, level: number, due: readonly DriveRule[]): number {
  let seed = newSeed()
  const driving = truck?.driving
  if (!driving) return seed
  for (let i = 0; i < 200 && !due.every((rule) => comesUp(driving, seed, level).includes(rule)); i++) seed = newSeed()
  return seed
}

function Rounds({ machine, level }: { machine: Machine; level: number }) {
  const [query] = useSearchParams()
  const only = query.get('only')?.split(',') ?? []
  const due = sometimes.filter((r) => only.includes(r))
  const { how, turn, run, over, again, next, leave } = useRounds<DriveRun>(level, (l) => seedFor(machine, l, due))
  // Made before the first frame, so that a machine that is not offered says why.
  const made = useMemo(() => orRefused(() => ({ recorder: new DriveRecorder(machine, how), turn })), [machine, how, turn])
  const onLeave = () => leave()
  if ('refused' in made) return <NotOffered title={t`Driving ${machine.name}`} error={made.refused} onLeave={onLeave} />
  if (run) return <DriveAfter machine={machine} run={run} onAgain={again} onNext={next} onLeave={onLeave} />
  return <Play key={turn} machine={machine} recorder={made.recorder} onOver={over} onLeave={onLeave} />
}

/** Figures on the screen are written anew so often, ms: more often nobody reads them. */
const figures_ms = 100

interface Told {
  speed_mps: number
  permitted_mps: number | null
  forks_m: number
  room_m: number
  edge: TruckEdge
  ahead: { edge: TruckEdge; in_s: number } | null
  time_s: number
  isSetDown: boolean
  pick: { next: Pick; beside: boolean; held: boolean } | null
  /** Of the carriage, to the left, where it is off its middle. */
  aside_m: number | null
  held: readonly number[]
}

/** What a driver reads at a moment. */
function toldOf({ drive, last }: DriveRecorder, held: readonly number[]): Told {
  const { motion, nextPick } = drive
  const edge = truckEdges.reduce((a, e) => (motion.room[e] < motion.room[a] ? e : a))
  const { slope, friction } = drive.underfoot
  return {
    speed_mps: Math.abs(motion.speed_mps),
    permitted_mps: bendSpeeds(motion).permitted_mps,
    forks_m: motion.height_m,
    room_m: motion.room[edge],
    edge,
    ahead: lookAhead(motion, last, { slope, friction }),
    time_s: drive.time_s,
    isSetDown: drive.isSetDown,
    pick: nextPick && {
      next: nextPick,
      beside: drive.isBesidePick,
      held: drive.standsAtPick,
    },
    aside_m: Math.abs(motion.shift_m) > centred_m ? motion.shift_m : null,
    held,
  }
}

/** How each switch is worked: its key, where it is on a gamepad, and whether it lasts only as long as it is held. */
const switches: Record<
  DriverSwitch,
  { label: string; letter: string; pad: keyof ReturnType<typeof padKeys>; onPad: string; held: boolean }
> = {
  look: { label: t`Eyes back`, letter: 'q', pad: 'left', onPad: t`left shoulder`, held: true },
  brake: { label: t`Brake`, letter: 'b', pad: 'middleLeft', onPad: t`left middle key`, held: false },
  key: { label: t`Key out`, letter: 'x', pad: 'middleRight', onPad: t`right middle key`, held: false },
  horn: { label: t`Horn`, letter: 'e', pad: 'right', onPad: t`right shoulder`, held: true },
}

/** A switch under a thumb, with its key. */
function SwitchKey({ of, on, onSet }: { of: DriverSwitch; on: boolean; onSet: (on: boolean) => void }) {
  const padThere = usePadThere()
  const { label, letter, onPad, held } = switches[of]
  return (
    <Button
      aria-pressed={on}
      className="min-h-14 min-w-28 touch-none justify-center select-none aria-pressed:bg-accent aria-pressed:text-on-accent max-sm:min-w-0 max-sm:grow max-sm:px-1"
      onPointerDown={(e) => {
        if (!held) return
        e.currentTarget.setPointerCapture(e.pointerId)
        onSet(true)
      }}
      onPointerUp={() => held && onSet(false)}
      onPointerCancel={() => held && onSet(false)}
      onClick={() => !held && onSet(!on)}
    >
      {label} <kbd className="rounded border border-edge px-1 font-mono max-sm:hidden">{letter.toUpperCase()}</kbd>
      {padThere && <span className="text-[0.82rem] font-normal">{onPad}</span>}
    </Button>
  )
}

/** Horn, eyes back, brake and key by their keys or a gamepad, while the run goes. */
function useSwitches(recorder: DriveRecorder, active: boolean) {
  const [on, setOn] = useState(allOff)
  const now = useRef(on)
  const set = useCallback(
    (what: DriverSwitch, to: boolean) => {
      recorder.hold(what, to)
      if (now.current[what] === to) return
      now.current = { ...now.current, [what]: to }
      setOn(now.current)
    },
    [recorder],
  )
  useEffect(() => {
    const release = () => {
      for (const what of driverSwitches) if (switches[what].held) set(what, false)
    }
    if (!active) return release()
    const byKey = (down: boolean) => (e: KeyboardEvent) => {
      const what = driverSwitches.find((w) => switches[w].letter === e.key.toLowerCase())
      if (!what || e.repeat || e.ctrlKey || e.metaKey || e.altKey) return
      if (switches[what].held) set(what, down)
      else if (down) set(what, !now.current[what])
    }
    return onKeys(byKey(true), byKey(false), release)
  }, [active, set])
  const padded = useRef(padKeys())
  /** Read each frame, beside the sticks. */
  const byPad = () => {
    const pad = padKeys()
    for (const what of driverSwitches) {
      const { pad: key, held } = switches[what]
      if (pad[key] === padded.current[key]) continue
      if (held) set(what, pad[key])
      else if (pad[key]) set(what, !now.current[what])
    }
    padded.current = pad
  }
  return { on, set, byPad }
}

/** What is to be done, before it begins. */
function Opening({ picks, door, tall, ramp, wet, aside }: Record<'picks' | 'door' | 'tall' | 'ramp' | 'wet' | 'aside', boolean>) {
  return (
    <>
      <p className="text-lg font-bold">
        {picks
          ? t`Pick at each mark along the aisle, then bring it to the ring.`
          : t`Take the load along the lane and set it down in the ring.`}
      </p>
      <ul className="mt-1 grid list-disc gap-0.5 pl-5">
        {picks ? (
          <>
            <li>{t`Platform at the mark, raise to its shelf, hold still for two seconds; down again before you go on.`}</li>
            <li>{t`Chassis first, platform down, horn before the corner, stop for people.`}</li>
            <li>{t`Leave it with the platform down, brake on, then key out.`}</li>
          </>
        ) : (
          <>
            <li>{t`Forks just off the ground, mast back, horn before the corner, stop for people.`}</li>
            <li>{t`Leave it with forks flat, brake on, then key out.`}</li>
          </>
        )}
        {aside && <li className="font-bold">{t`The side shift was left off its middle.`}</li>}
        {door && <li className="font-bold">{t`The lane begins behind a door of strips: horn before it too.`}</li>}
        {tall && <li className="font-bold">{t`This load hides the way.`}</li>}
        {ramp && <li className="font-bold">{t`There is a ramp; the arrows point uphill.`}</li>}
        {wet && <li className="font-bold">{t`The ground is wet.`}</li>}
      </ul>
      <p className="mt-1 text-quiet">
        {t`The wheels stay as you turned them.`}{' '}
        <span className="max-sm:hidden">{t`Shift is half; Space stops, Escape stops time.`}</span>
      </p>
    </>
  )
}

function Play({
  machine,
  recorder,
  onOver,
  onLeave,
}: {
  machine: Machine
  recorder: DriveRecorder
  onOver: (run: DriveRun) => void
  onLeave: () => void
}) {
  const [say, runId] = [useSay(), useRunId()]
  const { drive } = recorder
  useSoFar(() => ({ ticks: Math.max(1, drive.ticks), run: recorder.run(runId()) }))
  const levers = useMemo(() => drivingLeversOf(machine.controls), [machine])
  const plan = useRef<HTMLCanvasElement>(null)
  const triangle = useRef<HTMLCanvasElement>(null)
  const [told, setTold] = useState<Told>(() =>
    toldOf(
      recorder,
      drivingMotions.map(() => 0),
    ),
  )
  const told_ms = useRef(0)
  const draw = usePictures(
    [plan, triangle],
    useCallback(
      (paint) => {
        const [above, beside] = [sheetOf(plan.current, paint), sheetOf(triangle.current, paint)]
        if (above) drawDrive(above, drive, machine.outline.plan)
        if (beside) drawTriangle(beside, drive)
      },
      [drive, machine],
    ),
  )
  const { state, push, go, pause } = useTurn(
    levers,
    drivingMotions.length,
    () => recorder.stop(),
    (dt_s, held, at_ms) => {
      keys.byPad()
      const kept = recorder.pass(dt_s, held)
      draw()
      if (at_ms - told_ms.current > figures_ms) {
        told_ms.current = at_ms
        setTold(toldOf(recorder, held))
      }
      if (drive.over) onOver(recorder.run(runId()))
      return drive.over ? 'over' : kept ? 'on' : 'behind'
    },
  )
  const keys = useSwitches(recorder, state === 'going')
  const frame = 'relative min-h-0 overflow-hidden rounded-xl border border-line'
  return (
    <div data-station="" className="flex min-h-0 grow flex-col gap-2 pb-2">
      <h1 className="sr-only">{t`Practice: driving ${machine.name}`}</h1>
      <dl className="flex flex-wrap items-end gap-x-6 gap-y-1 max-sm:flex-nowrap max-sm:justify-between max-sm:gap-x-2">
        <Figure label={t`Speed`} over={told.permitted_mps !== null && told.speed_mps > told.permitted_mps}>
          {say('speed', told.speed_mps)}
        </Figure>
        <Figure label={t`Bend at most`}>{told.permitted_mps === null ? '–' : say('speed', told.permitted_mps)}</Figure>
        <Figure label={drive.truck.driving.platform ? t`Platform` : t`Forks`}>{say('length', told.forks_m)}</Figure>
        <Figure label={t`Room to edge`}>{say('length', told.room_m)}</Figure>
        <Figure label={t`Time`} wide>
          {clockOf(told.time_s)}
        </Figure>
      </dl>
      <div className="relative grid min-h-72 grow gap-2 md:grid-cols-[5fr_2fr]">
        <div className={frame}>
          <canvas
            ref={plan}
            role="img"
            aria-label={t`From above: truck, lane, people on foot and where the load goes`}
            className="absolute inset-0 size-full"
          />
        </div>
        <div className={clsx(frame, 'max-md:absolute max-md:top-2 max-md:right-2 max-md:h-36 max-md:w-28')}>
          <canvas
            ref={triangle}
            role="img"
            aria-label={t`The triangle it stands on, and where its weight presses`}
            className="absolute inset-0 size-full"
          />
        </div>
        {told.isSetDown && (
          <p className="absolute bottom-2 left-2 max-w-[60%] rounded-lg border-2 border-ink bg-paper px-3 py-1 font-bold">
            {t`The load stands. Leave the truck.`}
          </p>
        )}
        {told.pick && !told.ahead && (
          <p className="absolute bottom-2 left-2 max-w-[60%] rounded-lg border-2 border-ink bg-paper px-3 py-1 font-bold">
            {told.pick.held
              ? t`Hold still.`
              : told.pick.beside
                ? t`Raise to ${say('length', told.pick.next.height_m)}`
                : told.pick.next.side === 'left'
                  ? t`Next shelf: on the left, ${say('length', told.pick.next.height_m)} up`
                  : t`Next shelf: on the right, ${say('length', told.pick.next.height_m)} up`}
          </p>
        )}
        {told.aside_m !== null && !told.ahead && (
          <p className="absolute bottom-2 left-2 max-w-[60%] rounded-lg border-2 border-ink bg-paper px-3 py-1 font-bold">
            {told.aside_m > 0
              ? t`Side shift ${say('length', told.aside_m)} to the left`
              : t`Side shift ${say('length', -told.aside_m)} to the right`}
          </p>
        )}
        {told.ahead && (
          <p className="absolute bottom-2 left-2 max-w-[60%] rounded-lg border-2 border-outside bg-paper px-3 py-1 font-bold text-outside">
            {t`In ${told.ahead.in_s.toFixed(1)} s too near ${edgeWords[told.ahead.edge]}`}
          </p>
        )}
        {state === 'going' && <Button className="absolute right-2 bottom-2" onClick={pause}>{t`Pause`}</Button>}
        {state !== 'going' && (
          <div className="pointer-events-none absolute inset-0 grid place-items-center p-3 md:place-items-end md:content-end">
            <Halted ready={state === 'ready'} onGo={go} onLeave={onLeave}>
              <Opening
                picks={drive.course.picks.length > 0}
                door={drive.course.door !== null}
                tall={drive.course.tall}
                ramp={drive.course.ramp !== null}
                wet={drive.course.wet}
                aside={drive.course.shift_m !== 0}
              />
            </Halted>
          </div>
        )}
      </div>
      <div className="flex items-center justify-between gap-2">
        {(['look', 'brake', 'key', 'horn'] as const).map((of) => (
          <SwitchKey key={of} of={of} on={keys.on[of]} onSet={(on) => keys.set(of, on)} />
        ))}
      </div>
      <LeverRow levers={levers} held={told.held} onPush={push} onStop={() => recorder.stop()} />
    </div>
  )
}
