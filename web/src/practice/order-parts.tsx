import {
  emergencyCards,
  type Following,
  losses,
  type ProcedureStep,
  type SequenceAct,
  type SequenceDrill,
  statesOfCourse,
  stateWords,
  symptomsOf,
} from '@geolabe/core'
import { Eye } from 'lucide-react'
import type { ReactNode } from 'react'
import { t, told } from '../language/t'
import { Scrolls } from '../look/scrolls'
import { StepName } from '../order/steps'
import { MachineDrawing } from '../yard/machine-drawing'
import { lossWords } from './order-words'
import { WhatBreaks } from './what-breaks'

export type Act = (a: SequenceAct) => void

const key =
  'flex min-h-14 w-full items-center rounded-lg border-2 border-ink bg-paper px-3 py-1.5 text-left font-semibold hover:bg-sunk'

/** Steps to choose from, in no order. */
export function StepKeys({
  steps,
  isStuck,
  act,
}: {
  steps: readonly ProcedureStep[]
  /** None of them can be right as things are known. */
  isStuck: boolean
  act: Act
}) {
  return (
    <section aria-label={t`What comes next?`}>
      <h2 className="mb-1.5 text-[1.15rem]">{t`What comes next?`}</h2>
      {isStuck && <p className="mb-1.5 border-l-4 border-near pl-3">{t`Nothing, as far as is known: look first.`}</p>}
      <ul className="grid grid-cols-2 gap-2">
        {steps.map((s) => (
          <li key={s.id} className="grid">
            <button type="button" className={key} onClick={() => act({ do: 'step', step: s.id })}>
              <span>
                <StepName step={s} />
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** How it was handed over, as far as it matters here: each can be looked at. */
export function HandedOver({
  drill,
  looked,
  act,
}: {
  drill: SequenceDrill
  looked: ReadonlySet<string>
  /** Null: not begun yet. */
  act: Act | null
}) {
  const { file } = drill.course
  const anew = new Set(drill.toLookAt.map((s) => s.id))
  return (
    <Scrolls label={t`As you have been told`} className="h-full rounded-xl border border-line bg-sheet p-3">
      <MachineDrawing machine={{ name: drill.machine.name, drawing: drill.machine }} className="mb-2 h-16 w-full max-sm:hidden" />
      <h2 className="text-[1.15rem]">{t`As you have been told`}</h2>
      {act && <p className="mb-2 text-[0.92rem] text-quiet">{t`Touch what you want to see for yourself.`}</p>}
      <ul className="grid gap-1.5 sm:grid-cols-2">
        {statesOfCourse(drill.course).map((s) => {
          const { label, value } = stateWords(file, s.id, drill.told.states[s.id]?.value ?? s.initial)
          const seen = looked.has(s.id)
          return (
            <li key={s.id} className="grid">
              <button
                type="button"
                disabled={act === null}
                className={`flex min-h-12 items-center justify-between gap-2 rounded-lg border-2 px-2.5 py-1 text-left text-[0.95rem] enabled:hover:bg-sunk disabled:border-dashed ${
                  anew.has(s.id) ? 'border-near' : seen ? 'border-ink' : 'border-line'
                }`}
                onClick={() => act?.({ do: 'look', state: s.id })}
              >
                <span>{told(label)}</span>
                <strong className="flex shrink-0 items-center gap-1.5 text-right">
                  {told(value)}
                  {seen && !anew.has(s.id) && (
                    <>
                      <Eye size={18} aria-hidden="true" />
                      <span className="sr-only">{t`seen`}</span>
                    </>
                  )}
                </strong>
              </button>
            </li>
          )
        })}
      </ul>
    </Scrolls>
  )
}

function Keys({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h3 className="mb-1">{title}</h3>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">{children}</div>
    </section>
  )
}

/** What there is to be told when something is the matter, as at work. */
export function SomethingWrong({ drill, act }: { drill: SequenceDrill; act: Act }) {
  const { file } = drill.course
  const one = (label: string, a: SequenceAct) => (
    <button key={label} type="button" className={key} onClick={() => act(a)}>
      {label}
    </button>
  )
  const symptoms = symptomsOf(drill.machine)
  return (
    <div className="grid gap-3">
      <Keys title={t`Emergency`}>
        {emergencyCards(file.emergency).map((c) => one(told(c.label), { do: 'emergency', card: c.id }))}
      </Keys>
      {file.stops.length > 0 && (
        <Keys title={t`A stop was pressed`}>{file.stops.map((s) => one(told(s.label), { do: 'stop', stop: s.id }))}</Keys>
      )}
      <Keys title={t`Lost`}>{losses.map((why) => one(lossWords[why], { do: 'lost', why }))}</Keys>
      {symptoms.length > 0 && (
        <Keys title={t`It does what it should not`}>
          {symptoms.map((s) => one(told(s.symptom), { do: 'symptom', symptom: s.symptom }))}
        </Keys>
      )}
      {file.overrides.length > 0 && (
        <Keys title={t`Override`}>{file.overrides.map((o) => one(told(o.label), { do: 'override', override: o.id }))}</Keys>
      )}
    </div>
  )
}

/** A card, a reset or a way from a symptom, to its end. */
export function FollowingKeys({ following: now, finds, act }: { following: Following; finds: string | null; act: Act }) {
  if (now.of === 'way')
    return (
      <section aria-label={told(now.question.ask)} className="grid gap-2">
        <h2 className="text-[1.15rem]">{told(now.question.ask)}</h2>
        {now.looked ? (
          <p role="status" className="border-l-4 border-ink pl-3">
            {t`What you find: ${told(finds ?? '')}`}
          </p>
        ) : (
          <button type="button" className={key} onClick={() => act({ do: 'see' })}>{t`Look`}</button>
        )}
        <div className="grid grid-cols-2 gap-2">
          {now.question.answers.map((a) => (
            <button key={a.label} type="button" className={key} onClick={() => act({ do: 'answer', label: a.label })}>
              {told(a.label)}
            </button>
          ))}
        </div>
      </section>
    )
  const all = now.of === 'card' ? now.card.acts : null
  const title = all ? t`What is done first, and then?` : t`You know why. How is it reset, in order?`
  const done = now.offered.filter((w) => !now.left.includes(w) && (all === null || all.includes(w)))
  return (
    <section aria-label={title}>
      <h2 className="mb-1.5 text-[1.15rem]">{title}</h2>
      <div className="grid gap-2">
        {now.offered.map((w) => (
          <button
            key={w}
            type="button"
            disabled={done.includes(w)}
            className={`${key} disabled:border-dashed disabled:border-line disabled:text-quiet`}
            onClick={() => act({ do: 'next', words: w })}
          >
            {told(w)}
          </button>
        ))}
      </div>
    </section>
  )
}

const line = 'border-l-4 pl-3'

/** What the last act came to. */
export function Came({ drill }: { drill: SequenceDrill }) {
  const { last, course } = drill
  if (last.of === 'refused')
    return (
      <div role="status" className={`${line} border-outside`}>
        <p className="font-bold">
          {last.try.trusted
            ? t`It was not as you had been told: ${told(last.try.step.label)}`
            : t`Not yet: ${told(last.try.step.label)}`}
        </p>
        <ul>
          {last.try.unmet.slice(0, 2).map((n) => (
            <li key={n.id}>{told(n.because)}</li>
          ))}
        </ul>
        {last.try.grave && <WhatBreaks key={`${last.try.tick}`} hazards={last.try.step.hazards} />}
      </div>
    )
  if (last.of === 'wrong')
    return (
      <p role="status" className={`${line} border-outside font-bold`}>{t`Not that first. Nothing goes on until it is met.`}</p>
    )
  if (last.of === 'slip') return <p role="status" className={`${line} border-near font-bold`}>{t`Not that one.`}</p>
  if (last.of === 'override')
    return (
      <p role="status" className={`${line} border-outside font-bold`}>
        {t`${told(last.label)}: an override is for its one purpose, and that is not here.`}
      </p>
    )
  if (last.of === 'seen') {
    const { label, value } = stateWords(course.file, last.state, last.is)
    return (
      <p role="status" className={`${line} ${last.is === last.was ? 'border-line' : 'border-near font-bold'}`}>
        {t`You look: ${told(label)}, ${told(value)}.`}
      </p>
    )
  }
  if (last.of === 'taken')
    return (
      <p role="status" className={`${line} border-inside`}>
        {t`Done: ${told(last.step.label)}`}
      </p>
    )
  if (last.of === 'on')
    return (
      <p role="status" className={`${line} border-inside`}>
        {t`Right; go on.`}
      </p>
    )
  if (last.of === 'waited') return <p role="status" className={`${line} border-line`}>{t`You stand still, and nothing moves.`}</p>
  return <p role="status" />
}

/** What somebody calls over, until it has been heard. */
export function Called({ claims, onHeard }: { claims: SequenceDrill['claims']; onHeard: () => void }) {
  const last = claims.at(-1)
  if (!last) return null
  return (
    <p role="status" className="flex items-center gap-x-4 rounded-lg border-2 border-near px-3">
      <strong className="grow">{t`Somebody calls: “${told(last.step.label)}: done.”`}</strong>
      <button type="button" className="min-h-12 shrink-0 px-2 underline underline-offset-4" onClick={onHeard}>{t`Heard`}</button>
    </p>
  )
}
