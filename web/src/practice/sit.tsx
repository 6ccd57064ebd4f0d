import type { BegunTry, Exam } from '@geolabe/contract'
import { type ReactNode, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { useExam } from '../api/queries'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { ActionBar, Loaded, Refused, Sheet, Title } from '../look/page'
import { date } from '../look/when'
import { examWords, triesLeft } from './exam-words'
import { Sitting } from './given'

/** What an exam is, and that the try counts from the moment it begins; then the try. */
export function Sit({ exam, children }: { exam: string; children: (level: number) => ReactNode }) {
  const found = useExam(exam)
  const [begun, setBegun] = useState<BegunTry | null>(null)
  const [said, setSaid] = useState(false)
  if (begun?.word && !said) return <AwaitWord exam={exam} id={begun.id} onWord={() => setSaid(true)} />
  if (begun) return <Sitting value={{ ...begun, exam }}>{children(begun.level)}</Sitting>
  return <Loaded query={found}>{(e) => <Opening exam={e} onBegun={setBegun} />}</Loaded>
}

/** Whether the word has been given is asked so often. */
const ask_ms = 1000

/** A try that goes on at the assessor's word. */
function AwaitWord({ exam, id, onWord }: { exam: string; id: string; onWord: () => void }) {
  const found = useExam(exam, ask_ms)
  const said = found.data?.made.find((m) => m.id === id)?.wordAt ?? null
  useEffect(() => {
    if (said !== null) onWord()
  }, [said, onWord])
  return (
    <Loaded query={found}>
      {(e) => (
        <>
          <Title below={t`Practice, seen by ${e.assessor.name}. It is no licence.`}>{t`Exam: ${examWords(e)}`}</Title>
          <div role="status">
            <Sheet>
              <p className="text-[1.5rem] font-bold">{t`Wait for the word.`}</p>
              <p className="mt-1">{t`${e.assessor.name} gives it; your time begins with it.`}</p>
            </Sheet>
          </div>
        </>
      )}
    </Loaded>
  )
}

function Opening({ exam: e, onBegun }: { exam: Exam; onBegun: (b: BegunTry) => void }) {
  const navigate = useNavigate()
  const [id] = useState(newId)
  const [error, setError] = useState<unknown>(null)
  const [asking, setAsking] = useState(false)
  const begin = async () => {
    setAsking(true)
    setError(null)
    try {
      // Under one key, so that an answer that was lost on its way costs no try.
      const begun = await call<BegunTry>({ method: 'POST', path: `/practice/exams/${e.id}/tries`, body: { id }, key: id })
      void queryClient.invalidateQueries({ queryKey: ['practice', 'exams'] })
      onBegun(begun)
    } catch (x) {
      setError(x)
    } finally {
      setAsking(false)
    }
  }
  const left = triesLeft(e)
  return (
    <>
      <Title below={t`Practice, seen by ${e.assessor.name}. It is no licence.`}>{t`Exam: ${examWords(e)}`}</Title>
      <Sheet>
        <p className="text-[1.5rem] font-bold">
          {plural(left, { one: '# try left', other: '# tries left' })}
          <span className="text-base font-normal text-quiet">{t`, until ${date(e.until)}`}</span>
        </p>
        <ul className="mt-3 grid list-disc gap-1 pl-5">
          <li>{t`A try counts from the moment it begins, also where you leave it.`}</li>
          <li>{t`The course is new with every try; nobody has seen it.`}</li>
          <li>{t`${e.assessor.name} may watch, sees it again afterwards, and sees how long it took by the clock.`}</li>
          {e.word && <li>{t`It goes on at the word of ${e.assessor.name}.`}</li>}
        </ul>
      </Sheet>
      <div className="mt-4">
        <Refused error={error} />
      </div>
      <ActionBar
        why={
          e.word
            ? t`Until the word it needs the network; from then on it does not.`
            : t`To begin it needs the network; from then on it does not.`
        }
      >
        <Button look="quiet" onClick={() => navigate(`/practice/exams/${e.id}`)}>{t`Not now`}</Button>
        <Button look="next" disabled={asking || left === 0} onClick={() => void begin()}>
          {t`Begin try ${e.made.length + 1} of ${e.tries}`}
        </Button>
      </ActionBar>
    </>
  )
}
