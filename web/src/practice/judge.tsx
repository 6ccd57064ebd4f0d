import {
  type Item,
  itemsOfRound,
  type Judged,
  type JudgeRound,
  judgeVersion,
  type Machine,
  type Misreading,
  misreadings,
  misreadingsOf,
  type Opinion,
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
import { Claim, ItemSheets, Told } from './item-sheets'
import { JudgeAfter } from './judge-after'
import { NotOffered, OnMachine } from './on-machine'
import { orRefused, useRounds } from './use-rounds'
import { opinionWords } from './words'

/** Tables of one machine, read by somebody else: what is wrong with what they say? */
export function JudgeOn() {
  const [params] = useSearchParams()
  const asked = (params.get('only') ?? '').split(',')
  return (
    <OnMachine game="judge">
      {(f, level) => (
        <Rounds
          // Tables revised while somebody judges them are other items.
          key={[f.definition, ...f.tables].map(({ id, revision }) => `${id} ${revision}`).join()}
          machine={f.definition}
          tables={f.tables}
          asked={misreadings.filter((m) => asked.includes(m))}
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
  asked: readonly Misreading[]
  level: number
}) {
  const runId = useRunId()
  const { given, how, run: round, over: setRound, next, leave: leaveTo } = useRounds<JudgeRound>(level)
  const offered = useMemo(() => misreadingsOf(tables), [tables])
  // Of an exam nobody chooses what is asked.
  const due = given ? [] : offered.filter((m) => asked.includes(m))
  // What is due, as long as the tables still offer it.
  const only = due.length > 0 ? due : offered
  const [answers, setAnswers] = useState<readonly Judged[]>([])
  const key = only.join()
  const made = useMemo(
    () =>
      orRefused(() => ({ items: itemsOfRound(tables, { ...how, only: misreadings.filter((m) => key.split(',').includes(m)) }) })),
    [tables, how, key],
  )
  const leave = () => leaveTo(due.length > 0 ? '/practice/five' : '/practice')
  if ('refused' in made) return <NotOffered title={t`Tables of ${machine.name}`} error={made.refused} onLeave={leave} />
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
      format: 'geolabe.practice/1',
      id: runId(),
      game: 'judge',
      version: judgeVersion,
      machine: { id: machine.id, revision: machine.revision },
      tables: tables.map(({ id, revision }) => ({ id, revision })),
      ...how,
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
  offered: readonly Misreading[]
  answers: readonly Judged[]
  /** Each answer is told as it is given. */
  told: boolean
  onAnswer: (a: Judged) => void
  onOver: () => void
  onLeave: () => void
}) {
  const [at, setAt] = useState(0)
  const item = items[at]
  const table = tables.find((x) => x.id === item?.table)
  const answer = answers[at]
  if (!item || !table) return null
  const last = at + 1 === items.length
  const next = () => {
    scrollTo(0, 0)
    if (last) onOver()
    else setAt(at + 1)
  }
  const answered = (a: Judged) => {
    onAnswer(a)
    if (!told && !last) next()
  }
  return (
    <Station
      key={at}
      title={t`Tables of ${machine.name}`}
      below={t`Practice, ${at + 1} of ${items.length}`}
      head={<Claim item={item} table={table} />}
      drawing={<ItemSheets key={at} item={item} table={table} told={told && answer !== undefined} />}
      sheet={
        <div className="grid content-start gap-3">
          {answer && told && <Told item={item} table={table} answer={answer} />}
          {answer && !told && <p className="text-lg font-bold">{t`All are answered.`}</p>}
          {!answer && <Answering key={at} offered={offered} onAnswer={answered} />}
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

/** What is wrong, then how sure: two touches. */
function Answering({ offered, onAnswer }: { offered: readonly Misreading[]; onAnswer: (a: Judged) => void }) {
  const [wrong, setWrong] = useState<Opinion | null>(null)
  const key = (chosen: boolean) =>
    `min-h-12 rounded-lg border-2 px-3 py-1.5 text-left font-semibold ${chosen ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper'}`
  const opinions: readonly Opinion[] = ['nothing', ...offered]
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-bold">{t`What is wrong with it?`}</legend>
        <div className="grid grid-cols-2 gap-1.5">
          {opinions.map((o) => (
            <button key={o} type="button" aria-pressed={wrong === o} className={key(wrong === o)} onClick={() => setWrong(o)}>
              {opinionWords[o]}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset disabled={wrong === null} className="disabled:opacity-60">
        <legend className="mb-1 font-bold">{t`How sure are you?`}</legend>
        <div className="grid grid-cols-3 gap-1.5 sm:grid-cols-6">
          {surenesses.map((sure: Sure) => (
            <button
              key={sure}
              type="button"
              className="min-h-12 rounded-lg border-2 border-edge bg-paper px-1 text-center font-semibold whitespace-nowrap enabled:hover:bg-sunk disabled:border-dashed"
              onClick={() => wrong && onAnswer({ wrong, sure })}
            >
              {t`${sure} %`}
            </button>
          ))}
        </div>
      </fieldset>
    </>
  )
}
