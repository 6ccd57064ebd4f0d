import { type Item, type JudgeRound, type Machine, markRound, type RatingTable } from '@geolabe/core'
import { useMemo, useState } from 'react'
import { usePracticePoints } from '../api/queries'
import { plural, t } from '../language/t'
import { Dialog } from '../look/dialog'
import { Sheet } from '../look/page'
import { useSay } from '../units/units'
import { judgeWords } from './result-words'
import { NextSteps, NoLicence, Score, Told } from './score'
import { shownOf } from './shown'
import { useSent } from './use-sent'
import { opinionWords } from './words'

/** How sure somebody was against how right, over their last rounds. */
function Sureness() {
  const points = usePracticePoints()
  const c = points.data?.calibration
  if (!c) return <p className="text-quiet">{t`From twenty answers on it says here whether you are surer than you are right.`}</p>
  const off = Math.round(100 * c.bias)
  return (
    <p>
      <strong>
        {off > 0
          ? plural(off, { one: 'Surer than right by # point', other: 'Surer than right by # points' })
          : off < 0
            ? plural(-off, { one: 'Less sure than right by # point', other: 'Less sure than right by # points' })
            : t`As sure as right`}
      </strong>
      <span className="text-quiet">{t`, over your last ${c.count} answers.`}</span>
    </p>
  )
}

/** What was judged, in a word or by the figure that was said of it. */
function nameOf(item: Item, say: ReturnType<typeof useSay>): string {
  switch (item.of) {
    case 'table':
      return say('mass', item.said_kg)
    case 'stand':
      return t`Its stand`
    case 'way':
      return t`Its way`
    case 'part':
      return item.label
    case 'wind':
      return t`Gusts of ${say('speed', item.said.gust_mps)}`
  }
}

/** What a round came to: the sentence, the counts, each item with what was said of it. */
export function JudgeAfter({
  machine,
  tables,
  items,
  round,
  onNext,
  onLeave,
}: {
  machine: Machine
  tables: readonly RatingTable[]
  items: readonly Item[]
  round: JudgeRound
  onNext: (passed: boolean) => void
  onLeave: () => void
}) {
  const say = useSay()
  const marks = useMemo(() => markRound({ machine, tables }, round), [machine, tables, round])
  const error = useSent(round, marks.score)
  const [again, setAgain] = useState<number | null>(null)
  const seen = again === null ? undefined : items[again]
  const shown = seen && shownOf(seen, { machine, tables }, { answer: round.answers[again ?? 0], told: true, place: null })
  return (
    <>
      <Told of={t`Practice, judgement on ${machine.name}`} error={error}>
        {t`${judgeWords(marks)}.`}
      </Told>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-2">
        <Sheet>
          <Score score={marks.score} passed={marks.passed} />
          <dl className="mt-3 grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
            <dt>{t`Mistakes missed; each weighs five`}</dt>
            <dd className="text-right font-bold tabular-nums">{marks.missed}</dd>
            <dt>{t`Called wrong where nothing was`}</dt>
            <dd className="text-right font-bold tabular-nums">{marks.falseAlarms}</dd>
            <dt>{t`Seen, but called something else`}</dt>
            <dd className="text-right font-bold tabular-nums">{marks.misnamed}</dd>
          </dl>
          <div className="mt-3 border-t border-line pt-3">
            <Sureness />
          </div>
          <NoLicence />
        </Sheet>
        <Sheet title={t`One by one`}>
          <ol className="grid gap-1">
            {items.map((item, i) => {
              const a = marks.answers[i]
              return (
                a && (
                  <li
                    // biome-ignore lint/suspicious/noArrayIndexKey: the same place can come twice
                    key={i}
                    className={`border-l-4 ${a.right ? 'border-line' : 'border-outside'}`}
                  >
                    <button
                      type="button"
                      className="min-h-12 w-full rounded-r-lg px-3 py-1 text-left leading-snug hover:bg-sunk"
                      onClick={() => setAgain(i)}
                    >
                      <strong className="tabular-nums underline underline-offset-4">{nameOf(item, say)}</strong>{' '}
                      {a.right
                        ? t`${opinionWords[a.wrong]}, as you said`
                        : a.said === a.wrong
                          ? t`${opinionWords[a.wrong]}, but not there`
                          : t`${opinionWords[a.wrong]}; you said: ${opinionWords[a.said]}`}
                      <span className="text-quiet">{t`, ${a.sure} % sure`}</span>
                    </button>
                  </li>
                )
              )
            })}
          </ol>
        </Sheet>
      </div>
      {shown && (
        <Dialog open onClose={() => setAgain(null)} title={t`${shown.title}, ${(again ?? 0) + 1} of ${items.length}`}>
          <div className="grid gap-3">
            {shown.told}
            {shown.head}
            <div className="h-[52dvh] [&>svg]:h-full [&>svg]:max-h-none">{shown.drawing}</div>
          </div>
        </Dialog>
      )}
      <NextSteps next={t`Ten more`} onNext={() => onNext(marks.passed)} onLeave={onLeave} />
    </>
  )
}
