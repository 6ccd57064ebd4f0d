import { type Item, isRight, type Judged, marksOf } from '@geolabe/core'
import type { ReactNode } from 'react'
import { t } from '../language/t'

/** What an answer came to in a word, as the marks count it for one item alone. */
function outcomeWords(item: Item, answer: Judged): string {
  if (isRight(item, answer)) return t`Right.`
  const { missed, falseAlarms } = marksOf([item], [answer])
  if (missed > 0) return falseAlarms > 0 ? t`Not there.` : t`Missed.`
  return falseAlarms > 0 ? t`Nothing was wrong.` : t`Seen, but it was something else.`
}

/** Whether an answer was right, and why. */
export function Outcome({ item, answer, children }: { item: Item; answer: Judged; children: ReactNode }) {
  return (
    <div role="status" className={`border-l-8 pl-3 ${isRight(item, answer) ? 'border-inside' : 'border-outside'}`}>
      <p className="text-[1.3rem] font-bold">{outcomeWords(item, answer)}</p>
      {children}
    </div>
  )
}
