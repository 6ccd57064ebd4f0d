import { type CertificateLine, certificateRequest, type Exam, type ExamTry, isWatched, tryNoteRequest } from '@geolabe/contract'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { call, newId } from '../api/client'
import { queryClient, useMe } from '../api/me'
import { useExam, useMachine, useTriedRun } from '../api/queries'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { FigureEntry } from '../look/entries'
import { Form, TextEntry, useEntry } from '../look/form'
import { ActionBar, Loaded, Refused, Sheet, Title } from '../look/page'
import { date, when } from '../look/when'
import { useSay } from '../units/units'
import { clockOf } from './clock'
import { elapsed_s, examWords, setWords, standing, triesLeft, wayToSit } from './exam-words'
import { resultWords } from './result-words'
import { NoLicence } from './score'
import { SeenAgain } from './seen-again'
import { Watch } from './watch'

/** One exam: for who sits it, for who has set it. */
export function ExamPage() {
  const { id = '' } = useParams()
  const me = useMe().data
  const known = useExam(id)
  // Whoever set it has to see that a try begins, waits for the word, is over.
  const e = known.data
  const assesses = e !== undefined && e.assessor.id === me?.id
  useExam(id, assesses && (triesLeft(e) > 0 || e.made.some(isUnderWay)) ? 2000 : undefined)
  return <Loaded query={known}>{(x) => <Shown exam={x} />}</Loaded>
}

/** A run lasts no longer, and its pauses with it. */
const longest_ms = 30 * 60_000
/** Begun, and not so long ago that nothing comes of it any more. */
const isUnderWay = (m: ExamTry) => m.result === null && Date.now() - Date.parse(m.wordAt ?? m.begunAt) < longest_ms

const big =
  'flex min-h-16 items-center rounded-lg border-2 border-ink bg-accent px-7 text-lg font-bold text-on-accent shadow-[0_3px_0_var(--ink)]'

function Shown({ exam: e }: { exam: Exam }) {
  const say = useSay()
  const me = useMe().data
  const [assesses, sits] = [e.assessor.id === me?.id, e.person.id === me?.id]
  const [issuing, setIssuing] = useState(false)
  const left = triesLeft(e)
  const mayIssue = assesses && e.certificate === null && !e.machineChanged && e.made.some((m) => m.result?.passed)
  return (
    <>
      <Title
        below={t`${e.person.name}, seen by ${e.assessor.name}. Level ${Math.round(100 * e.level)} of 100, until ${date(e.until)}.`}
      >{t`Exam: ${examWords(e)}`}</Title>
      <div className="grid items-start gap-4 pb-6 md:grid-cols-[2fr_3fr]">
        <Sheet>
          <p className="text-[1.5rem] font-bold first-letter:uppercase">{standing(e)}</p>
          <p className="mt-1">
            {t`${e.made.length} of ${plural(e.tries, { one: '# try', other: '# tries' })} made.`}
            {e.machineChanged && ` ${t`${e.machine.name} has changed since: an exam on it is set again.`}`}
          </p>
          {e.settings && (
            <p className="mt-1">
              {t`Set:`} {setWords(e.settings, say).join('; ')}.
            </p>
          )}
          {e.word && <p className="mt-1">{t`Each try goes on at the word of ${e.assessor.name}.`}</p>}
          {e.certificate !== null && (
            <Link
              to="/practice/certificates"
              className="mt-2 inline-flex min-h-12 items-center font-semibold underline underline-offset-4"
            >{t`Certificates of practice`}</Link>
          )}
          <NoLicence />
        </Sheet>
        <div className="grid gap-4">
          {e.made.length === 0 && (
            <Sheet>
              <p className="text-quiet">{t`No try has been begun.`}</p>
            </Sheet>
          )}
          {e.made.map((m) => (
            <Try key={m.id} exam={e} made={m} assesses={assesses} />
          ))}
        </div>
      </div>
      {sits && left > 0 && (
        <ActionBar>
          <Link to={wayToSit(e)} className={big}>{t`To try ${e.made.length + 1} of ${e.tries}`}</Link>
        </ActionBar>
      )}
      {mayIssue && (
        <ActionBar>
          <Button look="next" onClick={() => setIssuing(true)}>{t`Issue the certificate`}</Button>
        </ActionBar>
      )}
      <Dialog open={issuing} onClose={() => setIssuing(false)} title={t`Certificate of practice for ${e.person.name}`}>
        <Issue exam={e} onIssued={() => setIssuing(false)} />
      </Dialog>
    </>
  )
}

/** How long a try took: by itself, and by the clock. */
function Took({ made }: { made: ExamTry }) {
  const by = elapsed_s(made)
  if (by === null) return null
  return (
    <p className="text-quiet">
      {made.lasted_s === null
        ? t`Kept ${clockOf(by)} after it began.`
        : t`Lasted ${clockOf(made.lasted_s)}; kept ${clockOf(by)} after it began, with every pause and the way through the network.`}
    </p>
  )
}

/** A try seen again, with what was noted of its moments. */
function Seen({ exam, made }: { exam: Exam; made: ExamTry }) {
  const [machine, tried] = [useMachine(exam.machine.id), useTriedRun(exam.id, made.id)]
  const moments = made.notes.flatMap((n) => (n.at_s === null ? [] : [{ at_s: n.at_s, words: n.words }]))
  return (
    <Loaded query={machine}>
      {(m) => <Loaded query={tried}>{({ run }) => <SeenAgain machine={m.definition} run={run} moments={moments} />}</Loaded>}
    </Loaded>
  )
}

/** A try that waits for the word. */
function Word({ exam: e, made: m, assesses }: { exam: Exam; made: ExamTry; assesses: boolean }) {
  const [error, setError] = useState<unknown>(null)
  const [key] = useState(newId)
  if (!assesses)
    return <p className="font-semibold">{t`Begun ${when(m.begunAt)}; it waits for the word of ${e.assessor.name}.`}</p>
  const give = () =>
    call<Exam>({ method: 'POST', path: `/practice/exams/${e.id}/tries/${m.id}/word`, body: {}, key }).then(again, setError)
  return (
    <>
      <p className="font-semibold">{t`${e.person.name} waits for your word.`}</p>
      <Refused error={error} />
      <Button look="next" className="mt-2" onClick={() => void give()}>{t`Give the word`}</Button>
    </>
  )
}

function Try({ exam: e, made: m, assesses }: { exam: Exam; made: ExamTry; assesses: boolean }) {
  const say = useSay()
  const [noting, setNoting] = useState(false)
  const [seeing, setSeeing] = useState(false)
  const [watching, setWatching] = useState(false)
  const waits = e.word && m.wordAt === null
  const byHand = m.notes.filter((n) => n.score !== null).at(-1)?.score ?? null
  return (
    <Sheet title={t`Try ${m.number}`}>
      {m.result ? (
        <>
          <p>
            <span className="text-[2.2rem] leading-none font-bold tabular-nums">{Math.round(m.result.score)}</span>{' '}
            <span className="text-quiet">{m.result.passed ? t`of 100, passed` : t`of 100, not passed`}</span>
            {byHand !== null && <strong className="ml-3">{t`by hand ${Math.round(byHand)}`}</strong>}
          </p>
          <p className="mt-1 font-semibold">{resultWords(m.result, say)}</p>
          <Took made={m} />
          {m.claimed !== null && (
            <p className="font-semibold text-outside">{t`The device had made ${Math.round(m.claimed)} of it; what counts was worked out here.`}</p>
          )}
        </>
      ) : waits ? (
        <Word exam={e} made={m} assesses={assesses} />
      ) : (
        <p className="font-semibold">{t`Begun ${when(m.begunAt)}; its run has not come. It counts all the same.`}</p>
      )}
      {m.notes.length > 0 && (
        <ul className="mt-3 grid gap-1 border-t border-line pt-3" aria-label={t`Notes of try ${m.number}`}>
          {m.notes.map((n) => (
            <li key={n.id}>
              {n.at_s !== null && <span className="text-quiet tabular-nums">{clockOf(n.at_s)} </span>}
              {n.score !== null && <strong>{t`${Math.round(n.score)} by hand. `}</strong>}
              {n.words}
            </li>
          ))}
        </ul>
      )}
      {!waits && (
        <div className="mt-3 flex flex-wrap gap-3 empty:hidden">
          {m.result && isWatched(e.game) && <Button onClick={() => setSeeing(true)}>{t`See try ${m.number} again`}</Button>}
          {assesses && isUnderWay(m) && isWatched(e.game) && (
            <Button look="next" onClick={() => setWatching(true)}>{t`Watch try ${m.number}`}</Button>
          )}
          {assesses && e.certificate === null && <Button onClick={() => setNoting(true)}>{t`Note on try ${m.number}`}</Button>}
        </div>
      )}
      <Dialog open={seeing} onClose={() => setSeeing(false)} title={t`Practice: try ${m.number} of ${e.person.name}`}>
        <Seen exam={e} made={m} />
      </Dialog>
      <Dialog
        open={watching}
        onClose={() => setWatching(false)}
        title={t`Practice: try ${m.number} of ${e.person.name}, under way`}
      >
        {m.result ? (
          <p role="status" className="text-lg font-bold">
            {t`It is over.`} {resultWords(m.result, say)}
          </p>
        ) : (
          <Watch exam={e} made={m}>
            {(at_s) => <NoteNow exam={e} made={m} at_s={at_s} />}
          </Watch>
        )}
      </Dialog>
      <Dialog open={noting} onClose={() => setNoting(false)} title={t`Note on try ${m.number}`}>
        <Note exam={e} made={m} onNoted={() => setNoting(false)} />
      </Dialog>
    </Sheet>
  )
}

const again = () => queryClient.invalidateQueries({ queryKey: ['practice'] })

/** A note on the moment that is seen. */
function NoteNow({ exam, made, at_s }: { exam: Exam; made: ExamTry; at_s: number }) {
  const [moment_s, setMoment] = useState<number | null>(null)
  if (moment_s !== null) return <Note exam={exam} made={made} at_s={moment_s} onNoted={() => setMoment(null)} />
  return <Button disabled={at_s === 0} onClick={() => setMoment(Math.round(10 * at_s) / 10)}>{t`Note this moment`}</Button>
}

function Note({ exam, made, at_s = null, onNoted }: { exam: Exam; made: ExamTry; at_s?: number | null; onNoted: () => void }) {
  const [error, setError] = useState<unknown>(null)
  const { control, handleSubmit } = useEntry(tryNoteRequest, { id: newId(), at_s, score: null, words: '' })
  const note = handleSubmit(async (body) => {
    setError(null)
    try {
      await call({ method: 'POST', path: `/practice/exams/${exam.id}/tries/${made.id}/notes`, body, key: body.id })
      await again()
      onNoted()
    } catch (x) {
      setError(x)
    }
  })
  return (
    <Form onSubmit={note}>
      <TextEntry control={control} name="words" label={t`What you noted`} rows={at_s === null ? 3 : 2} />
      <div className="grid gap-3 sm:grid-cols-2">
        <FigureEntry control={control} name="at_s" label={t`Seconds into the run; empty: all of it`} />
        <FigureEntry control={control} name="score" label={t`Your own score, 0 to 100; may stay empty`} />
      </div>
      {/* Beside a try that goes on there is no room for more words. */}
      {at_s === null && <p className="text-quiet">{t`The computed score stays as it is; yours stands beside it.`}</p>}
      <Refused error={error} />
      <Button look="next" type="submit">{t`Keep this note`}</Button>
    </Form>
  )
}

function Issue({ exam, onIssued }: { exam: Exam; onIssued: () => void }) {
  const [error, setError] = useState<unknown>(null)
  const { control, handleSubmit } = useEntry(certificateRequest, { id: newId(), exam: exam.id, words: '' })
  const issue = handleSubmit(async (body) => {
    setError(null)
    try {
      await call<CertificateLine>({ method: 'POST', path: '/practice/certificates', body, key: body.id })
      await again()
      onIssued()
    } catch (x) {
      setError(x)
    }
  })
  return (
    <Form onSubmit={issue}>
      <p>{t`It names every passed try with its score and what went wrong in it, and closes the exam. It is signed by this installation and does not change afterwards.`}</p>
      <TextEntry control={control} name="words" label={t`Your words on it; may stay empty`} rows={2} />
      <Refused error={error} />
      <Button look="next" type="submit">{t`Issue the certificate`}</Button>
    </Form>
  )
}
