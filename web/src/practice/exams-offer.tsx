import { Link } from 'react-router'
import { useMe } from '../api/me'
import { useExams } from '../api/queries'
import { plural, t } from '../language/t'
import { date } from '../look/when'
import { examWords, triesLeft, wayToSit } from './exam-words'

const way = 'inline-flex min-h-12 items-center font-semibold underline underline-offset-4'

/** Exams that wait for one, and the ways to exams and certificates. */
export function ExamsOffer() {
  const me = useMe().data
  const waiting = (useExams().data?.exams ?? []).filter((e) => e.person.id === me?.id && triesLeft(e) > 0)
  return (
    <div className="mb-4 grid gap-2">
      {waiting.map((e) => (
        <Link
          key={e.id}
          to={wayToSit(e)}
          className="flex min-h-14 flex-wrap items-center gap-x-4 rounded-lg border-2 border-ink bg-sheet px-5 py-2 hover:bg-sunk"
        >
          <span className="text-lg font-bold">{t`Exam: ${examWords(e)}`}</span>
          <span className="text-quiet">
            {t`${plural(triesLeft(e), { one: '# try left', other: '# tries left' })}, until ${date(e.until)}; set by ${e.assessor.name}`}
          </span>
        </Link>
      ))}
      <p className="flex flex-wrap gap-x-6">
        <Link to="/practice/exams" className={way}>{t`Exams of practice`}</Link>
        <Link to="/practice/certificates" className={way}>{t`Certificates of practice`}</Link>
      </p>
    </div>
  )
}
