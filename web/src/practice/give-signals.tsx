import { type Machine, type SignalId, type SignalRun, signalIds } from '@geolabe/core'
import { useEffect, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { meaningOf, Signaller } from '../signals/hand-signals'
import { clockOf } from './clock'
import { GiveRecorder } from './give-recorder'
import { useRunId } from './given'
import { Halted } from './on-machine'
import { SituationDrawn, situationWords } from './situation'
import type { How } from './use-rounds'
import { useTurn } from './use-turn'

/** From this level on only the pictures tell one signal from another. */
const pictures_level = 0.5

/** The other way round: you signal. What is seen is drawn, and the signal that is next is chosen. */
export function GiveSignals({
  machine,
  how,
  onOver,
  onLeave,
}: {
  machine: Machine
  how: How
  onOver: (run: SignalRun) => void
  onLeave: () => void
}) {
  const runId = useRunId()
  const [recorder] = useState(() => new GiveRecorder(machine, how))
  const [time_s, setTime] = useState(0)
  const { state, go, pause } = useTurn(
    [],
    0,
    () => {},
    (dt_s) => {
      const kept = recorder.pass(dt_s)
      setTime(recorder.time_s)
      if (recorder.over) onOver(recorder.run(runId()))
      return recorder.over ? 'over' : kept ? 'on' : 'behind'
    },
  )
  const going = state === 'going'
  const give = (signal: SignalId) => {
    if (going) recorder.give(signal)
  }
  useEffect(() => {
    const byKey = (e: KeyboardEvent) => {
      const signal = signalIds[Number(e.key) - 1]
      if (signal && going && !e.repeat && !e.ctrlKey && !e.metaKey && !e.altKey) recorder.give(signal)
    }
    addEventListener('keydown', byKey)
    return () => removeEventListener('keydown', byKey)
  }, [recorder, going])
  const now = going ? recorder.now : null
  const gave = going && !now ? recorder.last?.gave : undefined
  return (
    <div data-station="" className="flex min-h-0 grow flex-col gap-2 pb-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 className="text-[1.4rem]">{t`Practice: you signal, ${machine.name}`}</h1>
        <p className="text-[1.4rem] font-bold tabular-nums">{clockOf(time_s)}</p>
      </div>
      <div className="relative grid min-h-64 grow place-items-center overflow-hidden rounded-xl border border-line bg-sheet p-2">
        {now && <SituationDrawn situation={now.shown.situation} className="absolute inset-2 size-[calc(100%-1rem)]" />}
        {gave !== undefined && (
          <p className="text-xl font-bold">{gave === null ? t`No signal given.` : t`You gave: ${meaningOf(gave)}`}</p>
        )}
        {now && <p className="absolute top-2 left-3 text-quiet">{t`Practice. ${now.number} of ${recorder.count}`}</p>}
        {going && <Button className="absolute right-2 bottom-2" onClick={pause}>{t`Pause`}</Button>}
        {!going && (
          <Halted ready={state === 'ready'} onGo={go} onLeave={onLeave}>
            <p className="text-lg font-bold">{t`You face the operator. Give the signal that is next.`}</p>
            <ul className="mt-1 grid list-disc gap-0.5 pl-5">
              <li>{t`Up until it is clear, across, then down. Left and right are yours.`}</li>
              <li>{t`What moves is stopped where it should stand, or goes wrong. Somebody under it: everything stops, at once.`}</li>
            </ul>
          </Halted>
        )}
      </div>
      <p role="status" className="min-h-6 font-semibold">
        {now && how.level < pictures_level && situationWords(now.shown.situation)}
      </p>
      <div className="grid grid-cols-4 gap-2 lg:grid-cols-8">
        {signalIds.map((id, i) => (
          <button
            key={id}
            type="button"
            disabled={!now}
            onClick={() => give(id)}
            className="grid min-h-24 justify-items-center rounded-xl border-2 border-ink bg-sheet p-1 disabled:opacity-60"
          >
            {/* From behind, as whoever gives it stands: right is right. */}
            <Signaller signal={id} className="h-16 w-full -scale-x-100" />
            <span
              className={
                how.level < pictures_level
                  ? 'text-[0.92rem] leading-tight font-semibold max-sm:text-[0.82rem] max-sm:tracking-tight'
                  : 'sr-only'
              }
            >
              {meaningOf(id)}
            </span>
            <kbd className="rounded border border-edge px-1 font-mono max-lg:hidden">{i + 1}</kbd>
          </button>
        ))}
      </div>
    </div>
  )
}
