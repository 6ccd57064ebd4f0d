import { type Machine, markSequence, type SequenceCourse, type SequenceRun } from '@geolabe/core'
import { useMemo } from 'react'
import { plural, t, told } from '../language/t'
import { Sheet } from '../look/page'
import { clockOf } from './clock'
import { cueNames } from './order-words'
import { sequenceWords } from './result-words'
import { NextSteps, NoLicence, Score, Told } from './score'
import { useSent } from './use-sent'

/** What an order of work came to: the sentence, what was out of order, how what came was met, and what was not as it had been told. */
export function OrderAfter({
  machine,
  course,
  run,
  onAgain,
  onNext,
  onLeave,
}: {
  machine: Machine
  course: SequenceCourse
  run: SequenceRun
  onAgain: () => void
  onNext: (passed: boolean) => void
  onLeave: () => void
}) {
  const marks = useMemo(() => markSequence(machine, run), [machine, run])
  const error = useSent(run, marks.score)
  const lies = course.faults.flatMap((f) => {
    if (f.kind === 'untrue') return [course.file.states.find((s) => s.id === f.state)?.label ?? f.state]
    const step = f.kind === 'claimed' && !f.true ? course.steps.find((s) => s.id === f.step) : undefined
    return step ? [step.label] : []
  })
  return (
    <>
      <Told of={t`Practice, order of work of ${machine.name}`} error={error}>
        {t`${sequenceWords(marks)}.`}
      </Told>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-2">
        <Sheet>
          <Score score={marks.score} passed={marks.passed} />
          <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 tabular-nums">
            <dt>{t`Steps out of order that can hurt`}</dt>
            <dd className="text-right font-bold">{marks.tries.filter((x) => x.grave).length}</dd>
            <dt>{t`Other steps out of order`}</dt>
            <dd className="text-right font-bold">{marks.tries.filter((x) => !x.grave).length}</dd>
            <dt>{t`Time`}</dt>
            <dd className="text-right font-bold">{clockOf(marks.time_s)}</dd>
          </dl>
          {lies.map((label) => (
            <p key={label} className="mt-2 border-l-4 border-near pl-3">{t`Not as you had been told: ${told(label)}`}</p>
          ))}
          <NoLicence />
        </Sheet>
        <Sheet title={t`What came, and what was out of order`}>
          <ol className="grid gap-2">
            {marks.met.map((m) => (
              <li key={`${m.kind} ${m.from_s}`} className={`border-l-4 pl-3 ${m.wrongFirst ? 'border-outside' : 'border-line'}`}>
                <strong>{cueNames[m.kind]}</strong> {m.after_s === null ? t`not met` : t`met after ${m.after_s.toFixed(1)} s`}
                {m.wrongFirst && <span>, {t`something else first`}</span>}
                {m.slips > 0 && (
                  <span className="text-quiet">
                    , {plural(m.slips, { one: '# act out of order', other: '# acts out of order' })}
                  </span>
                )}
              </li>
            ))}
            {marks.tries.map((x, i) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: the same step can be tried again
                key={i}
                className={`border-l-4 pl-3 ${x.grave ? 'border-outside' : 'border-near'}`}
              >
                <strong>{told(x.step)}</strong> <span className="text-quiet">{clockOf(x.at_s)}</span>
                <span className="block">{told(x.because)}</span>
              </li>
            ))}
          </ol>
        </Sheet>
      </div>
      <NextSteps next={t`Another`} onNext={() => onNext(marks.passed)} onAgain={onAgain} onLeave={onLeave} />
    </>
  )
}
