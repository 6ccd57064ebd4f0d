import { type Machine, mostLatency_s, movesOn, type Rig, rigOf, type SignalRun, signallerFor, silence_s } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Title } from '../look/page'
import { HandSignals, Signaller } from '../signals/hand-signals'
import { OnRadio } from '../signals/radio'
import { clockOf } from './clock'
import { GiveSignals } from './give-signals'
import { useRunId } from './given'
import { LeverRow } from './lever-pad'
import { leversOf } from './levers'
import { Halted, NotOffered, OnMachine } from './on-machine'
import { SignalAfter } from './signal-after'
import { SignalRecorder } from './signal-recorder'
import { type How, orRefused, useRounds } from './use-rounds'
import { useTurn } from './use-turn'

/** The load out of view, a signaller in view: answered with the machine's own levers. */
export const SignalsOn = () => (
  <OnMachine game="signal">{(f, level) => <Rounds key={f.definition.revision} machine={f.definition} level={level} />}</OnMachine>
)

function Rounds({ machine, level }: { machine: Machine; level: number }) {
  const { given, how, run, over, next, leave } = useRounds<SignalRun>(level)
  const [latency_s, setLatency] = useState<number | null>(null)
  const [gives, setGives] = useState(false)
  const made = useMemo(() => orRefused(() => ({ rig: rigOf(machine) })), [machine])
  const onLeave = () => leave()
  if ('refused' in made) return <NotOffered title={t`Hand signals on ${machine.name}`} error={made.refused} onLeave={onLeave} />
  if (run) return <SignalAfter machine={machine} run={run} onNext={next} onLeave={onLeave} />
  if (gives) return <GiveSignals key={how.seed} machine={machine} how={how} onOver={over} onLeave={onLeave} />
  if (latency_s === null)
    return <Opening machine={machine} onReady={setLatency} onGive={given ? null : () => setGives(true)} onLeave={onLeave} />
  return <Play key={how.seed} machine={machine} rig={made.rig} how={how} latency_s={latency_s} onOver={over} onLeave={onLeave} />
}

const taps = 10

/** What is agreed, and ten taps that tell how long the device takes. */
function Opening({
  machine,
  onReady,
  onGive,
  onLeave,
}: {
  machine: Machine
  onReady: (latency_s: number) => void
  /** The other way round; null: an exam has them answered. */
  onGive: (() => void) | null
  onLeave: () => void
}) {
  const [seen, setSeen] = useState<readonly number[]>([])
  const tap = (stamp_ms: number) => {
    const all = [...seen, Math.max(0, performance.now() - stamp_ms) / 1000].sort((a, b) => a - b)
    if (all.length < taps) setSeen(all)
    else onReady(Math.min(mostLatency_s, all[Math.floor(taps / 2)] ?? 0))
  }
  const without = useMemo(() => {
    const moves = movesOn(rigOf(machine).axes.map((a) => a.motion))
    return (['boom-up', 'boom-down', 'out', 'in'] as const).filter((s) => !moves.some((m) => m.signal === s))
  }, [machine])
  return (
    <>
      <Title below={t`Practice. The load is out of view; do what your signaller asks, with the levers of ${machine.name}.`}>
        {t`Hand signals on ${machine.name}`}
      </Title>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-[3fr_2fr]">
        <section className="rounded-xl border border-line bg-sheet p-4">
          <h2 className="mb-2">{t`Agreed`}</h2>
          <HandSignals without={without} />
          <p className="mt-2">
            {t`A left-handed signaller gives hoist, lower, stop and boom with the left arm; they mean the same. The way to a side is shown with the arm on that side.`}
          </p>
          <p className="mt-2">{t`On the radio the same is said in words; left and right are yours, from the cab.`}</p>
        </section>
        <section className="grid gap-3 rounded-xl border border-line bg-sheet p-4">
          <ul className="grid list-disc gap-1.5 pl-5">
            <li>{t`Only your signaller moves a load. Anybody stops it.`}</li>
            <li>{t`Out of sight is a stop. So is a signal or a word that nobody agreed: do not guess.`}</li>
            <li>
              {t`Then the load goes out of view, and you are talked to on the radio. Words stop, load stops: more than ${silence_s} seconds of silence is a stop.`}
            </li>
            <li>{t`Answered before anybody could have seen it, it is a guess: it does not count, and comes once more at the end.`}</li>
            <li>{t`A wrong motion fails, however quick. So does a stop that takes more than a second and a half.`}</li>
          </ul>
          <Button look="next" className="justify-center" onClick={(e) => tap(e.timeStamp)}>
            {seen.length === 0 ? t`Tap ten times to begin` : t`${taps - seen.length} more`}
          </Button>
          <p className="text-[0.92rem] text-quiet">{t`The taps tell how long this device takes; that much is taken off your times.`}</p>
          {onGive && <Button className="justify-center" onClick={onGive}>{t`The other way round: you signal`}</Button>}
          <Button look="quiet" onClick={onLeave}>{t`Leave practice`}</Button>
        </section>
      </div>
    </>
  )
}

function Play({
  machine,
  rig,
  how,
  latency_s,
  onOver,
  onLeave,
}: {
  machine: Machine
  rig: Rig
  how: How
  latency_s: number
  onOver: (run: SignalRun) => void
  onLeave: () => void
}) {
  const runId = useRunId()
  const [recorder] = useState(() => new SignalRecorder(machine, rig, how, Math.max(0, Math.min(mostLatency_s, latency_s))))
  const levers = useMemo(() => leversOf(machine.controls, rig), [machine, rig])
  const [told, setTold] = useState<{ at: number; time_s: number; calling: boolean; held: readonly number[] }>({
    at: 0,
    time_s: 0,
    calling: false,
    held: rig.axes.map(() => 0),
  })
  const { state, push, go, pause } = useTurn(
    levers,
    rig.axes.length,
    () => recorder.stop(),
    (dt_s, held) => {
      const kept = recorder.pass(dt_s, held)
      const { at, time_s, calling } = recorder
      setTold({ at, time_s, calling, held })
      if (recorder.over) onOver(recorder.run(runId()))
      return recorder.over ? 'over' : kept ? 'on' : 'behind'
    },
  )
  const way = useMemo(() => signallerFor(how.seed, how.level), [how])
  const p = recorder.course[told.at]
  const [own, other] = [p?.who === 'signaller' ? p.signal : 'attention', p?.who === 'other' ? p.signal : null] as const
  return (
    <div data-station="" className="flex min-h-0 grow flex-col gap-2 pb-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-[1.4rem]">{t`Practice: signals on ${machine.name}`}</h1>
        <p className="text-[1.4rem] font-bold tabular-nums">{clockOf(told.time_s)}</p>
      </div>
      <div className="relative flex min-h-72 grow items-end justify-center gap-6 overflow-hidden rounded-xl border border-line bg-sheet p-3">
        {state === 'going' && p?.by === 'voice' && <OnRadio prompt={p} calling={told.calling} />}
        {state === 'going' && p?.by === 'hand' && (
          <>
            {p.who !== 'nobody' && (
              <div className="text-center">
                <Signaller signal={own} way={way} className="mx-auto h-80 w-96 max-w-full max-sm:h-48 max-sm:w-56" />
                <p className="font-semibold">{t`Your signaller`}</p>
              </div>
            )}
            {p.who === 'nobody' && <p className="self-center text-quiet">{t`Nobody is to be seen.`}</p>}
            {other && (
              <div className="text-center">
                <Signaller signal={other} className="mx-auto h-60 w-72 max-w-full max-sm:h-36 max-sm:w-40" />
                <p className="text-quiet">{t`Somebody else`}</p>
              </div>
            )}
          </>
        )}
        {state === 'going' && <Button className="absolute right-2 bottom-2" onClick={pause}>{t`Pause`}</Button>}
        {state !== 'going' && (
          <div className="self-center">
            <Halted ready={state === 'ready'} onGo={go} onLeave={onLeave}>
              <p className="text-lg font-bold">{t`Hands on the levers. Your signaller is before you.`}</p>
              <p className="mt-1 text-quiet">
                {t`This device takes ${Math.round(1000 * latency_s)} ms; that is taken off. Space stops everything, Escape stops time.`}
              </p>
            </Halted>
          </div>
        )}
      </div>
      <LeverRow levers={levers} held={told.held} onPush={push} onStop={() => recorder.stop()} />
    </div>
  )
}
