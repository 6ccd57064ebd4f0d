import {
  headOf,
  type Item,
  itemsOfRound,
  type Judged,
  type JudgeRound,
  judgeVersion,
  type Machine,
  type Mistake,
  mistakes,
  mistakesOn,
  type Opinion,
  partLines,
  type RatingTable,
  type Sure,
  surenesses,
} from '@geolabe/core'
import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Station } from '../look/station'
import { useRunId } from './given'
import { JudgeAfter } from './judge-after'
import { NotOffered, OnMachine } from './on-machine'
import { type Shown, shownOf } from './shown'
import { orRefused, useRounds } from './use-rounds'
import { WhichPlace } from './which-place'
import { opinionWords } from './words'

/** What somebody else read from a machine's tables, or how they set it up: what is wrong with it? */
export function JudgeOn() {
  const [params] = useSearchParams()
  const asked = (params.get('only') ?? '').split(',')
  return (
    <OnMachine game="judge">
      {(f, level) => (
        <Rounds
          // Tables or a walk-round revised while somebody judges them are other items.
          key={`${f.walkroundRevision} ${[f.definition, ...f.tables].map(({ id, revision }) => `${id} ${revision}`).join()}`}
          machine={f.definition}
          tables={f.tables}
          asked={mistakes.filter((m) => asked.includes(m))}
          level={level}
        />
      )}
    </OnMachine>
  )
}

function Rounds({
  machine,
  tables,
  asked,
  level,
}: {
  machine: Machine
  tables: RatingTable[]
  asked: readonly Mistake[]
  level: number
}) {
  const runId = useRunId()
  const { given, how, run: round, over: setRound, next, leave: leaveTo } = useRounds<JudgeRound>(level)
  const offered = useMemo(() => mistakesOn({ machine, tables }), [machine, tables])
  // Of an exam nobody chooses what is asked.
  const due = given ? [] : offered.filter((m) => asked.includes(m))
  // What is due, as long as the machine still offers it.
  const only = due.length > 0 ? due : offered
  const [answers, setAnswers] = useState<readonly Judged[]>([])
  const key = only.join()
  const made = useMemo(
    () =>
      orRefused(() => ({
        items: itemsOfRound({ machine, tables }, { ...how, only: mistakes.filter((m) => key.split(',').includes(m)) }),
      })),
    [machine, tables, how, key],
  )
  const leave = () => leaveTo(due.length > 0 ? '/practice/five' : '/practice')
  if ('refused' in made) return <NotOffered title={t`Judgement on ${machine.name}`} error={made.refused} onLeave={leave} />
  const { items } = made
  if (round)
    return (
      <JudgeAfter
        machine={machine}
        tables={tables}
        items={items}
        round={round}
        onNext={(passed) => {
          setAnswers([])
          next(passed)
        }}
        onLeave={leave}
      />
    )
  const over = () =>
    setRound({
      ...headOf(machine, how, runId()),
      game: 'judge',
      version: judgeVersion,
      tables: tables.map(({ id, revision }) => ({ id, revision })),
      parts: partLines(machine),
      only: [...only],
      answers: [...answers],
    })
  return (
    <Asking
      key={how.seed}
      machine={machine}
      tables={tables}
      items={items}
      offered={offered}
      answers={answers}
      told={given === null}
      onAnswer={(a) => setAnswers([...answers, a])}
      onOver={over}
      onLeave={leave}
    />
  )
}

/** One item after the other: judged, told at once, gone on from; in an exam nothing is told before its end. */
function Asking({
  machine,
  tables,
  items,
  offered,
  answers,
  told,
  onAnswer,
  onOver,
  onLeave,
}: {
  machine: Machine
  tables: readonly RatingTable[]
  items: readonly Item[]
  offered: readonly Mistake[]
  answers: readonly Judged[]
  /** Each answer is told as it is given. */
  told: boolean
  onAnswer: (a: Judged) => void
  onOver: () => void
  onLeave: () => void
}) {
  const [at, setAt] = useState(0)
  const [place, setPlace] = useState<string | null>(null)
  const item = items[at]
  const answer = answers[at]
  if (!item) return null
  const last = at + 1 === items.length
  const next = () => {
    scrollTo(0, 0)
    setPlace(null)
    if (last) onOver()
    else setAt(at + 1)
  }
  const answered = (a: Judged) => {
    onAnswer(a)
    if (!told && !last) next()
  }
  const shown = shownOf(item, { machine, tables }, { answer, told, place, onPlace: setPlace })
  if (!shown) return null
  return (
    <Station
      key={at}
      title={shown.title}
      below={t`Practice, ${at + 1} of ${items.length}`}
      head={shown.head}
      drawing={shown.drawing}
      sheet={
        <div className="grid content-start gap-3 roomy:h-full roomy:overflow-y-auto">
          {told && shown.told}
          {answer && !told && <p className="text-lg font-bold">{t`All are answered.`}</p>}
          {!answer && (
            <Answering
              key={at}
              offered={offered.filter((m) => shown.of.includes(m))}
              where={shown.where}
              place={place}
              onPlace={setPlace}
              onAnswer={answered}
            />
          )}
        </div>
      }
      actions={
        <>
          <Button look="quiet" onClick={onLeave}>{t`Leave practice`}</Button>
          {answer && (
            <Button look="next" onClick={next}>
              {last ? t`What it came to` : t`Next`}
            </Button>
          )}
        </>
      }
    />
  )
}

/** What is wrong, where one of several could be, then how sure: two touches or three. */
function Answering({
  offered,
  where,
  place,
  onPlace,
  onAnswer,
}: {
  offered: readonly Mistake[]
  where: Shown['where']
  place: string | null
  onPlace: (id: string) => void
  onAnswer: (a: Judged) => void
}) {
  const [wrong, setWrong] = useState<Opinion | null>(null)
  const key = (chosen: boolean) =>
    `min-h-12 rounded-lg border-2 px-3 py-1.5 text-left font-semibold ${chosen ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper'}`
  const opinions: readonly Opinion[] = ['nothing', ...offered]
  const which = where && wrong !== null && where.asked(wrong) ? where.of : null
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-bold">{t`What is wrong with it?`}</legend>
        <div className="grid grid-cols-2 gap-1.5 md:grid-cols-3 md:portrait:grid-cols-4">
          {opinions.map((o) => (
            <button key={o} type="button" aria-pressed={wrong === o} className={key(wrong === o)} onClick={() => setWrong(o)}>
              {opinionWords[o]}
            </button>
          ))}
        </div>
      </fieldset>
      {which && <WhichPlace places={which} at={place} onChoose={onPlace} />}
      <fieldset disabled={wrong === null || (which !== null && place === null)} className="disabled:opacity-60">
        <legend className="mb-1 font-bold">{t`How sure are you?`}</legend>
        <div className="grid grid-cols-3 gap-1.5 sm:grid-cols-6">
          {surenesses.map((sure: Sure) => (
            <button
              key={sure}
              type="button"
              className="min-h-12 rounded-lg border-2 border-edge bg-paper px-1 text-center font-semibold whitespace-nowrap enabled:hover:bg-sunk disabled:border-dashed"
              onClick={() => wrong && onAnswer({ wrong, ...(which && place ? { at: place } : {}), sure })}
            >
              {t`${sure} %`}
            </button>
          ))}
        </div>
      </fieldset>
    </>
  )
}
