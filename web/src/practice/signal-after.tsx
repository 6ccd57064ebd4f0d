import { type Machine, markSignals, type SignalMarks, type SignalRun, situations } from '@geolabe/core'
import { useMemo } from 'react'
import { t } from '../language/t'
import { Sheet } from '../look/page'
import { meaningOf } from '../signals/hand-signals'
import { spokenFor } from '../signals/radio'
import { signalWords } from './result-words'
import { NextSteps, NoLicence, Score, Told } from './score'
import { SituationDrawn } from './situation'
import { useSent } from './use-sent'
import { signalFaultWords } from './words'

const seconds = (s: number | null) => (s === null ? '–' : t`${s.toFixed(2)} s`)

/** What was seen or heard. */
function shownBy({ by, who, signal, gave }: SignalMarks['responses'][number]): string {
  if (by === 'given')
    return gave === undefined || gave === null || gave === signal
      ? meaningOf(signal)
      : t`${meaningOf(signal)} was next; you gave ${meaningOf(gave)}`
  if (who === 'nobody') return by === 'voice' ? t`Silence on the radio` : t`Out of sight`
  const words = by === 'voice' ? t`On the radio: ${spokenFor(signal)}` : meaningOf(signal)
  return who === 'other' ? t`${words}, from somebody else` : words
}

/** What a run of signals came to: the sentence, the times, each signal with its answer. */
export function SignalAfter({
  machine,
  run,
  onNext,
  onLeave,
}: {
  machine: Machine
  run: SignalRun
  onNext: (passed: boolean) => void
  onLeave: () => void
}) {
  const marks = useMemo(() => markSignals(machine, run), [machine, run])
  const error = useSent(run, marks.score)
  const seen = useMemo(() => (run.gave ? situations(run.seed, run.level) : []), [run])
  const situation = (i: number) => {
    const s = seen[i]
    return s && <SituationDrawn situation={s} className="h-20 w-32 shrink-0" />
  }
  const shown = marks.responses
    .map((r, i) => ({ r, i }))
    .filter(({ r }) => r.by === 'given' || r.wants !== 'nothing' || r.fault !== null)
  return (
    <>
      <Told of={t`Practice, hand signals on ${machine.name}`} error={error}>
        {t`${signalWords(marks)}.`}
      </Told>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-2">
        <Sheet>
          <Score score={marks.score} passed={marks.passed} />
          <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 tabular-nums">
            <dt>{t`Half of your answers within`}</dt>
            <dd className="text-right font-bold">{seconds(marks.median_s)}</dd>
            <dt>{t`Nine in ten within`}</dt>
            <dd className="text-right font-bold">{seconds(marks.p90_s)}</dd>
            <dt>{t`The slowest`}</dt>
            <dd className="text-right font-bold">{seconds(marks.worst_s)}</dd>
            <dt>{t`Sooner than anybody can see, not counted`}</dt>
            <dd className="text-right font-bold">{marks.guesses}</dd>
          </dl>
          <NoLicence />
        </Sheet>
        <Sheet title={t`Signal by signal`}>
          <ol className="grid gap-1.5">
            {shown.map(({ r, i }) => (
              <li
                key={i}
                className={`flex items-center gap-3 border-l-4 pl-3 ${r.fault === null ? 'border-line' : 'border-outside'}`}
              >
                {situation(i)}
                <span className="flex flex-wrap gap-x-3">
                  <strong>{shownBy(r)}</strong>
                  <span className="tabular-nums">{r.after_s === null ? '' : seconds(r.after_s)}</span>
                  <span className="text-quiet">
                    {r.fault === null ? (r.guessed ? t`not counted` : '') : signalFaultWords[r.fault]}
                  </span>
                </span>
              </li>
            ))}
          </ol>
        </Sheet>
      </div>
      <NextSteps next={t`Again, others`} onNext={() => onNext(marks.passed)} onLeave={onLeave} />
    </>
  )
}
