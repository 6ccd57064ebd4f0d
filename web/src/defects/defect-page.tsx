import {
  type Defect,
  type GradeRequest,
  gradeRequest,
  type NoteRequest,
  noteRequest,
  type RepairRequest,
  repairRequest,
  returnRequest,
  stopsMachine,
  type VerifyRequest,
  verifyRequest,
  type WatchRequest,
  watchRequest,
} from '@geolabe/contract'
import { type DefectAction, grade as grades, isClosed, isGraver, type Role, whyNot } from '@geolabe/core'
import { Printer } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { useParams } from 'react-router'
import { newId } from '../api/client'
import { queryClient, useMe } from '../api/me'
import { outbox } from '../api/outbox'
import { useDefect, useMachine } from '../api/queries'
import { SpotOn } from '../instruments/spot'
import { t } from '../language/t'
import { gradeWords } from '../language/words'
import { Button } from '../look/button'
import { DateEntry } from '../look/date-entry'
import { ChoiceEntry, FigureEntry } from '../look/entries'
import { Form, TextEntry, useEntry } from '../look/form'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { AddPhoto } from './add-photo'
import { stateWords, watchWords } from './defects'

/** One defect through its whole life; each step by whose part it is. */
export function DefectPage() {
  const { id = '' } = useParams()
  const query = useDefect(id)
  return <Loaded query={query}>{(d) => <Life defect={d} />}</Loaded>
}

function Life({ defect: d }: { defect: Defect }) {
  const me = useMe().data
  const machine = useMachine(d.machine.id).data?.definition
  const [error, setError] = useState<unknown>(null)
  const closed = isClosed(d.state)
  const stops = (stopsMachine(d.grade) || d.pending) && !closed
  const act = async (step: string, body: object) => {
    setError(null)
    try {
      queryClient.setQueryData(['defects', d.id], await outbox.send<Defect>('defect-step', { defect: d.id, step }, body))
      for (const key of ['yard', 'machine']) void queryClient.invalidateQueries({ queryKey: [key] })
    } catch (e) {
      setError(e)
    }
  }
  const has = (r: Role) => Boolean(me?.roles.includes(r))
  const contact = d.contacts.some((c) => c.person.id === me?.id || c.standIn.id === me?.id)
  const mine = d.repair?.by.id === me?.id
  const actor = { id: me?.id ?? '', roles: me?.roles ?? [], contact }
  const may = (a: DefectAction) => whyNot(a, { ...d, repairedBy: d.repair?.by.id ?? null }, actor) === null
  return (
    <>
      <Title below={`${gradeWords[d.grade].label}. ${gradeWords[d.grade].means}`}>{`${d.machine.name}: ${d.where}`}</Title>
      {stops && (
        <div className="mb-4 overflow-hidden rounded-xl border-2 border-outside bg-sheet">
          <div className="h-3 hatch-outside" />
          <div className="flex flex-wrap items-center justify-between gap-3 p-4">
            <p className="text-lg">
              <strong className="text-outside">{t`${d.machine.name} is stopped.`}</strong>{' '}
              {d.pending
                ? t`On this machine any defect stops it until the person in charge has graded it.`
                : d.state === 'repaired'
                  ? t`The repair is recorded; somebody else looks at it, then the person in charge returns it to service.`
                  : d.state === 'verified'
                    ? t`The repair was looked at; the person in charge returns it to service.`
                    : t`Nobody uses it until it is repaired, looked at by another, and returned by the person in charge.`}
            </p>
            <a
              className="inline-flex min-h-12 items-center gap-2 rounded-lg border-2 border-ink px-4 font-semibold"
              href={`/api/defects/${d.id}/tag.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              <Printer size={20} aria-hidden="true" /> {t`Stop tag`}
            </a>
          </div>
        </div>
      )}
      <div className="grid items-start gap-4 pb-8 md:grid-cols-2">
        <Sheet title={d.pending ? t`Waits to be graded` : stateWords[d.state]}>
          {machine && d.spot && (
            <div className="mb-4">
              <SpotOn machine={machine} spot={d.spot} onSpot={null} view={d.spot.view} />
            </div>
          )}
          <Story defect={d} />
        </Sheet>
        <div className="grid gap-4">
          {may('acknowledge') && (
            <Sheet title={t`Your part: acknowledge`}>
              <Button look="next" onClick={() => void act('acknowledge', {})}>{t`I have seen this`}</Button>
            </Sheet>
          )}
          {has('person-in-charge') && d.pending && <Grading defect={d} onSave={(body) => void act('grade', body)} />}
          {may('repair') && <Repair onSave={(body) => void act('repair', body)} />}
          {may('verify') && <Verify onSave={(body) => void act('verify', body)} />}
          {d.state === 'repaired' && mine && (
            <p className="text-quiet">{t`You recorded this repair; somebody else looks at it. Returning is the part of the person in charge.`}</p>
          )}
          {may('return') && <Return machine={d.machine.name} onSave={(words) => void act('return', { words })} />}
          {may('watch') && (
            <Keep onWatch={(body) => void act('watch', body)} onAccept={(words) => void act('accept', { words })} />
          )}
          {has('person-in-charge') && stopsMachine(d.grade) && (d.state === 'raised' || d.state === 'acknowledged') && (
            <p className="text-quiet">{t`Returning to service waits for a fitter’s recorded repair, and for another to look at it.`}</p>
          )}
          {!closed && <Add defect={d} mayWorsen={may('worsen')} onNote={(body) => void act('notes', body)} />}
          <Refused error={error} />
        </div>
      </div>
    </>
  )
}

function Story({ defect: d }: { defect: Defect }) {
  return (
    <ol className="grid gap-4">
      <Step title={t`Raised: ${gradeWords[d.raisedGrade].label.toLowerCase()}`} by={d.raised}>
        <p className="text-lg">{d.words}</p>
        {d.photos.map((p) => (
          <img
            key={p}
            src={`/api/photos/${p}`}
            alt={t`The defect: ${d.words}`}
            className="mt-2 max-h-72 rounded-lg border border-line"
          />
        ))}
      </Step>
      {!d.acknowledged && d.contacts.length > 0 && (
        <li className="border-l-4 border-near pl-4">
          <p className="font-bold">{t`Not acknowledged yet`}</p>
          <p className="text-quiet">{t`Told: ${d.contacts.map((c) => t`${c.person.name}, in their place ${c.standIn.name}`).join('; ')}`}</p>
        </li>
      )}
      {happened(d).map((x) => (
        <Step key={`${x.at}${x.title}`} title={x.title} by={x}>
          {x.words && <p>{x.words}</p>}
          {x.more && <p className="text-quiet">{x.more}</p>}
        </Step>
      ))}
      {d.watched?.over && (
        <li className="border-l-4 border-outside pl-4 font-bold text-outside">{t`Its time is over. Look at it and decide anew.`}</li>
      )}
    </ol>
  )
}

const actionWords: Record<Defect['steps'][number]['action'], string> = {
  acknowledge: t`Acknowledged`,
  grade: t`Graded`,
  repair: t`Repair recorded`,
  verify: t`Repair looked at: in order`,
  'send-back': t`Repair sent back: not in order`,
  watch: t`Kept watched`,
  accept: t`Accepted as it is`,
  return: t`Returned to service`,
  worsen: t`Worsened`,
}

/** Decisions and notes in the order in which they came; what was overtaken stays to be read. */
function happened(d: Defect) {
  const decided = d.steps.map((x) => {
    const { parts, hours, until_date, until_hours } = x.detail as Record<string, string | number | null | undefined>
    const until = { untilDate: (until_date as string) ?? null, untilHours: (until_hours as number) ?? null }
    const title = x.action === 'watch' ? t`Kept watched: ${watchWords(until)}` : actionWords[x.action]
    const graded = x.action === 'grade' || (x.action === 'worsen' && 'grade' in x.detail && x.detail.grade !== null)
    const more = x.action === 'repair' ? `${parts || t`No parts`} · ${hours} h` : graded ? gradeWords[x.grade].label : ''
    return { title, by: x.by, at: x.at, words: x.words, more }
  })
  const noted = d.notes.map((n) => ({ title: t`Note`, by: n.by, at: n.at, words: n.words, more: '' }))
  return [...decided, ...noted].sort((a, b) => (a.at < b.at ? -1 : 1))
}

/** Its grade as it is, and those that are graver. */
const gradeOptions = (d: Defect) =>
  grades.options.filter((g) => g === d.grade || isGraver(g, d.grade)).map((g) => ({ value: g, label: gradeWords[g].label }))

function Grading({ defect: d, onSave }: { defect: Defect; onSave: (body: GradeRequest) => void }) {
  const form = useEntry(gradeRequest, { grade: d.grade, words: '' })
  return (
    <Sheet title={t`Your part: grade it`}>
      <Form onSubmit={form.handleSubmit(onSave)}>
        <ChoiceEntry control={form.control} name="grade" label={t`Grade`} options={gradeOptions(d)} />
        <TextEntry control={form.control} name="words" label={t`Why`} rows={2} />
        <Button look="next" type="submit">
          {stopsMachine(form.watch('grade')) ? t`Grade it; it stays stopped` : t`Grade it and release the machine`}
        </Button>
      </Form>
    </Sheet>
  )
}

function Verify({ onSave }: { onSave: (body: VerifyRequest) => void }) {
  const form = useEntry(verifyRequest, { inOrder: true, words: '' })
  const say = (inOrder: boolean) => {
    form.setValue('inOrder', inOrder)
    void form.handleSubmit(onSave)()
  }
  return (
    <Sheet title={t`Look at the repair`}>
      <Form onSubmit={form.handleSubmit(onSave)}>
        <TextEntry control={form.control} name="words" label={t`What you tried, what you saw`} rows={3} />
        <div className="flex flex-wrap gap-2">
          <Button look="next" onClick={() => say(true)}>{t`It is in order`}</Button>
          <Button onClick={() => say(false)}>{t`Not in order, back to the fitter`}</Button>
        </div>
      </Form>
    </Sheet>
  )
}

function Keep({ onWatch, onAccept }: { onWatch: (body: WatchRequest) => void; onAccept: (words: string) => void }) {
  const form = useEntry(watchRequest, { untilDate: null, untilHours: null, words: '' })
  const { control } = form
  // Accepted as it is, it needs its reason and no date.
  const accept = async () => {
    if (await form.trigger('words', { shouldFocus: true })) onAccept(form.getValues('words').trim())
  }
  return (
    <Sheet title={t`Your part: keep it watched, or accept it`}>
      <Form onSubmit={form.handleSubmit(onWatch)}>
        <DateEntry control={control} name="untilDate" label={t`Watched until`} />
        <FigureEntry control={control} name="untilHours" label={t`Or until the meter stands at`} />
        <TextEntry control={control} name="words" label={t`What to look for, or why it is accepted`} rows={2} />
        <div className="flex flex-wrap gap-2">
          <Button look="next" type="submit">{t`Keep it watched`}</Button>
          <Button onClick={() => void accept()}>{t`Accept it as it is`}</Button>
        </div>
      </Form>
    </Sheet>
  )
}

/** Words, a photo, or that it has worsened: then it may be graded graver, never milder. */
function Add({ defect: d, mayWorsen, onNote }: { defect: Defect; mayWorsen: boolean; onNote: (body: NoteRequest) => void }) {
  const form = useEntry(noteRequest, { id: newId(), words: '', worsened: false, grade: d.grade })
  const { control } = form
  const options = gradeOptions(d)
  const send = (worsened: boolean) =>
    form.handleSubmit(({ words, grade }) => {
      onNote({ id: newId(), words, worsened, grade: worsened && grade !== d.grade ? grade : null })
      form.reset()
    })()
  return (
    <Sheet title={t`Add to it`}>
      <Form onSubmit={() => void send(false)}>
        <TextEntry control={control} name="words" label={t`What you saw`} rows={2} />
        {mayWorsen && options.length > 1 && (
          <ChoiceEntry control={control} name="grade" label={t`If it has worsened, it is now`} options={options} />
        )}
        <div className="flex flex-wrap gap-2">
          {mayWorsen && <Button onClick={() => void send(true)}>{t`It has worsened`}</Button>}
          <Button onClick={() => void send(false)}>{t`Add the note`}</Button>
          <AddPhoto defect={d.id} />
        </div>
      </Form>
    </Sheet>
  )
}

function Step({ title, by, children }: { title: string; by: { by: { name: string }; at: string }; children?: ReactNode }) {
  return (
    <li className="border-l-4 border-ink pl-4">
      <p className="font-bold">{title}</p>
      <p className="text-quiet">
        {by.by.name}, {when(by.at)}
      </p>
      {children}
    </li>
  )
}

function Repair({ onSave }: { onSave: (body: RepairRequest) => void }) {
  const form = useEntry(repairRequest, { words: '', parts: '' })
  const { control } = form
  return (
    <Sheet title={t`Your part: record the repair`}>
      <Form onSubmit={form.handleSubmit(onSave)}>
        <TextEntry control={control} name="words" label={t`What was done`} rows={3} />
        <TextEntry control={control} name="parts" label={t`Parts`} />
        <FigureEntry control={control} name="hours" label={t`Hours of work`} />
        <Button look="next" type="submit">{t`Record the repair`}</Button>
      </Form>
    </Sheet>
  )
}

function Return({ machine, onSave }: { machine: string; onSave: (words: string) => void }) {
  const form = useEntry(returnRequest, { words: '' })
  return (
    <Sheet title={t`Your part: return to service`}>
      <Form onSubmit={form.handleSubmit(({ words }) => onSave(words))}>
        <TextEntry control={form.control} name="words" label={t`What you looked at`} rows={3} />
        <Button look="next" type="submit">{t`Return ${machine} to service`}</Button>
      </Form>
    </Sheet>
  )
}
