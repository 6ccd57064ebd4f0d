import { follow, isEnd, type SymptomEnd, type SymptomFigures, type SymptomPath } from '@geolabe/core'
import { t } from '../language/t'
import { Button } from '../look/button'
import { OrderBack } from '../order/steps'
import type { Order } from '../order/use-order'

const ends = {
  continue: { words: t`Go on`, tone: 'border-ink' },
  stop: { words: t`Stop the machine`, tone: 'border-outside' },
  call: { words: t`Call before you go on`, tone: 'border-near' },
} as const

/**
 * From a symptom, question by question, to continue, stop or call. A way that ends without a cause stops the machine. From the first answer to its
 * end the order offers only what brings the machine back.
 */
export function SymptomWay({
  path,
  order,
  figures,
  answers,
  onAnswers,
  onEnd,
  onStop,
  onClose,
}: {
  path: SymptomPath
  order: Order
  figures: SymptomFigures
  /** What has been answered so far; put out of sight it is not lost. */
  answers: readonly string[]
  onAnswers: (answers: readonly string[]) => void
  /** Its end is recorded, whichever it is. */
  onEnd: (end: SymptomEnd) => void
  onStop: (words: string) => void
  onClose: () => void
}) {
  const here = follow(path, answers, figures)
  const isOpen = order.world.symptom?.symptom === path.symptom
  const answer = (label: string) => {
    if (!isOpen && answers.length === 0) void order.tell([{ do: 'symptom-begin', symptom: path.symptom }])
    onAnswers([...answers, label])
  }
  const back = answers.length > 0 && (
    <Button look="quiet" onClick={() => onAnswers(answers.slice(0, -1))}>{t`Back one question`}</Button>
  )
  if (!isEnd(here)) {
    return (
      <div className="grid gap-3" aria-live="polite">
        <OrderBack order={order} />
        <p className="text-quiet">{t`Nothing hanging, nobody beneath, hands off the levers.`}</p>
        <p className="text-xl font-bold">{here.ask}</p>
        <div className={here.answers.length > 4 ? 'grid gap-3 sm:grid-cols-2' : 'grid gap-3'}>
          {here.answers.map((a) => (
            <Button key={a.label} className="min-h-14 text-lg" onClick={() => answer(a.label)}>
              {a.label}
            </Button>
          ))}
        </div>
        {back}
        {isOpen && answers.length === 0 && (
          <Button
            look="quiet"
            onClick={() => {
              void order.tell([{ do: 'symptom', symptom: path.symptom, answers: [], end: 'mistaken', loses: [] }])
              onClose()
            }}
          >{t`Opened by mistake: nothing is wrong`}</Button>
        )}
      </div>
    )
  }
  const said = ends[here.end]
  return (
    <div className="grid gap-3" aria-live="polite">
      <div className={`rounded-xl border-4 p-4 ${said.tone}`}>
        <p className="text-2xl font-bold">{said.words}</p>
        <p className="mt-1 text-lg">{here.words}</p>
        <p className="mt-2 text-quiet">{here.cause ? t`Cause: ${here.cause.toLowerCase()}.` : t`No cause was found.`}</p>
      </div>
      {here.end === 'stop' ? (
        <Button
          look="stop"
          className="min-h-16 justify-center text-lg"
          onClick={() => {
            onEnd(here)
            onStop(`${answers.join(' · ')}. ${here.words}`.slice(0, 1900))
          }}
        >{t`Enter it and stop the machine`}</Button>
      ) : (
        <Button
          look="next"
          onClick={() => {
            onEnd(here)
            onClose()
          }}
        >{t`Understood`}</Button>
      )}
      {back}
    </div>
  )
}
