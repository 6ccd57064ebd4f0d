import { Link } from 'react-router'
import { usePracticePoints } from '../api/queries'
import { t } from '../language/t'
import { dueNow, dueWords } from './due'

/** What is due of practice, in one line; nothing where nothing is. */
export function FiveMinutesOffer() {
  const due = dueNow(usePracticePoints().data?.points ?? [])
  if (due.length === 0) return null
  return (
    <Link
      to="/practice/five"
      className="mb-3 flex min-h-12 flex-wrap items-center gap-x-3 rounded-lg border border-line bg-sheet px-4 py-1.5 hover:border-ink"
    >
      <strong>{t`Five minutes`}</strong>
      <span className="text-quiet">{dueWords(due.length)}</span>
    </Link>
  )
}
