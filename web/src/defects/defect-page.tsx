import { type Defect, gradeWords, stopsMachine, type VerifyRequest, type WatchRequest } from '@geolabe/contract'
import { type DefectAction, grade as grades, isClosed, isGraver, type Role, whyNot } from '@geolabe/core'
import { Printer } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { useParams } from 'react-router'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { queryClient, useDefect, useMachine, useMe } from '../api/queries'
import { SpotOn } from '../instruments/spot'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { TextField } from '../look/field'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { editPlain, parsePlain, typedFault } from '../units/units'
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
              <strong className="text-outside">{d.machine.name} is stopped.</strong>{' '}
              {d.pending
                ? 'On this machine any defect stops it until the person in charge has graded it.'
                : d.state === 'repaired'
                  ? 'The repair is recorded; somebody else looks at it, then the person in charge returns it to service.'
                  : d.state === 'verified'
                    ? 'The repair was looked at; the person in charge returns it to service.'
                    : 'Nobody uses it until it is repaired, looked at by another, and returned by the person in charge.'}
            </p>
            <a
              className="inline-flex min-h-12 items-center gap-2 rounded-lg border-2 border-ink px-4 font-semibold"
              href={`/api/defects/${d.id}/tag.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              <Printer size={20} aria-hidden="true" /> Stop tag
            </a>
          </div>
        </div>
      )}
      <div className="grid items-start gap-4 pb-8 md:grid-cols-2">
        <Sheet title={d.pending ? 'Waits to be graded' : stateWords[d.state]}>
          {machine && d.spot && (
            <div className="mb-4">
              <SpotOn machine={machine} spot={d.spot} onSpot={null} view={d.spot.view} />
            </div>
          )}
          <Story defect={d} />
        </Sheet>
        <div className="grid gap-4">
          {may('acknowledge') && (
            <Sheet title="Your part: acknowledge">
              <Button look="next" onClick={() => void act('acknowledge', {})}>
                I have seen this
              </Button>
            </Sheet>
          )}
          {has('person-in-charge') && d.pending && <Grading defect={d} onSave={(body) => void act('grade', body)} />}
          {may('repair') && <Repair onSave={(body) => void act('repair', body)} />}
          {may('verify') && <Verify onSave={(body) => void act('verify', body)} />}
          {d.state === 'repaired' && mine && (
            <p className="text-quiet">
              You recorded this repair; somebody else looks at it. Returning is the part of the person in charge.
            </p>
          )}
          {may('return') && <Return machine={d.machine.name} onSave={(words) => void act('return', { words })} />}
          {may('watch') && (
            <Keep onWatch={(body) => void act('watch', body)} onAccept={(words) => void act('accept', { words })} />
          )}
          {has('person-in-charge') && stopsMachine(d.grade) && (d.state === 'raised' || d.state === 'acknowledged') && (
            <p className="text-quiet">
              Returning to service waits for a fitter’s recorded repair, and for another to look at it.
            </p>
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
      <Step title={`Raised: ${gradeWords[d.raisedGrade].label.toLowerCase()}`} by={d.raised}>
        <p className="text-lg">{d.words}</p>
        {d.photos.map((p) => (
          <img
            key={p}
            src={`/api/photos/${p}`}
            alt={`The defect: ${d.words}`}
            className="mt-2 max-h-72 rounded-lg border border-line"
          />
        ))}
      </Step>
      {!d.acknowledged && d.contacts.length > 0 && (
        <li className="border-l-4 border-near pl-4">
          <p className="font-bold">Not acknowledged yet</p>
          <p className="text-quiet">
            Told: {d.contacts.map((c) => `${c.person.name}, in their place ${c.standIn.name}`).join('; ')}
          </p>
        </li>
      )}
      {happened(d).map((x) => (
        <Step key={`${x.at}${x.title}`} title={x.title} by={x}>
          {x.words && <p>{x.words}</p>}
          {x.more && <p className="text-quiet">{x.more}</p>}
        </Step>
      ))}
      {d.watched?.over && (
        <li className="border-l-4 border-outside pl-4 font-bold text-outside">Its time is over. Look at it and decide anew.</li>
      )}
    </ol>
  )
}

const actionWords: Record<Defect['steps'][number]['action'], string> = {
  acknowledge: 'Acknowledged',
  grade: 'Graded',
  repair: 'Repair recorded',
  verify: 'Repair looked at: in order',
  'send-back': 'Repair sent back: not in order',
  watch: 'Kept watched',
  accept: 'Accepted as it is',
  return: 'Returned to service',
  worsen: 'Worsened',
}

/** Decisions and notes in the order in which they came; what was overtaken stays to be read. */
function happened(d: Defect) {
  const decided = d.steps.map((x) => {
    const { parts, hours, until_date, until_hours } = x.detail as Record<string, string | number | null | undefined>
    const until = { untilDate: (until_date as string) ?? null, untilHours: (until_hours as number) ?? null }
    const title = x.action === 'watch' ? `Kept watched: ${watchWords(until)}` : actionWords[x.action]
    const graded = x.action === 'grade' || (x.action === 'worsen' && 'grade' in x.detail && x.detail.grade !== null)
    const more = x.action === 'repair' ? `${parts || 'No parts'} · ${hours} h` : graded ? gradeWords[x.grade].label : ''
    return { title, by: x.by, at: x.at, words: x.words, more }
  })
  const noted = d.notes.map((n) => ({ title: 'Note', by: n.by, at: n.at, words: n.words, more: '' }))
  return [...decided, ...noted].sort((a, b) => (a.at < b.at ? -1 : 1))
}

function Grading({ defect: d, onSave }: { defect: Defect; onSave: (body: { grade: Defect['grade']; words: string }) => void }) {
  const [chosen, setChosen] = useState(d.grade)
  const [words, setWords] = useState('')
  const options = grades.options
    .filter((g) => g === d.grade || isGraver(g, d.grade))
    .map((g) => ({ value: g, label: gradeWords[g].label }))
  return (
    <Sheet title="Your part: grade it">
      <div className="grid gap-3">
        <Choice label="Grade" value={chosen} onChange={setChosen} options={options} />
        <TextField label="Why" value={words} onChange={setWords} rows={2} />
        <Button look="next" onClick={() => onSave({ grade: chosen, words })}>
          {stopsMachine(chosen) ? 'Grade it; it stays stopped' : 'Grade it and release the machine'}
        </Button>
      </div>
    </Sheet>
  )
}

function Verify({ onSave }: { onSave: (body: VerifyRequest) => void }) {
  const [words, setWords] = useState('')
  return (
    <Sheet title="Look at the repair">
      <div className="grid gap-3">
        <TextField label="What you tried, what you saw" value={words} onChange={setWords} rows={3} />
        <div className="flex flex-wrap gap-2">
          <Button look="next" disabled={words.trim() === ''} onClick={() => onSave({ inOrder: true, words })}>
            It is in order
          </Button>
          <Button disabled={words.trim() === ''} onClick={() => onSave({ inOrder: false, words })}>
            Not in order, back to the fitter
          </Button>
        </div>
      </div>
    </Sheet>
  )
}

function Keep({ onWatch, onAccept }: { onWatch: (body: WatchRequest) => void; onAccept: (words: string) => void }) {
  const [date, setDate] = useState('')
  const [hours, setHours] = useState<number | null>(null)
  const [words, setWords] = useState('')
  const said = words.trim() !== ''
  return (
    <Sheet title="Your part: keep it watched, or accept it">
      <div className="grid gap-3">
        <label className="font-semibold">
          Watched until
          <input type="date" className="field mt-1" value={date} onChange={(e) => setDate(e.target.value)} />
        </label>
        <HoursField label="Or until the meter stands at" value={hours} onChange={setHours} />
        <TextField label="What to look for, or why it is accepted" value={words} onChange={setWords} rows={2} />
        <div className="flex flex-wrap gap-2">
          <Button
            look="next"
            disabled={!said || (date === '' && hours === null)}
            onClick={() => onWatch({ untilDate: date || null, untilHours: hours, words })}
          >
            Keep it watched
          </Button>
          <Button disabled={!said} onClick={() => onAccept(words)}>
            Accept it as it is
          </Button>
        </div>
      </div>
    </Sheet>
  )
}

/** Words, a photo, or that it has worsened: then it may be graded graver, never milder. */
function Add({ defect: d, mayWorsen, onNote }: { defect: Defect; mayWorsen: boolean; onNote: (body: object) => void }) {
  const [words, setWords] = useState('')
  const [to, setTo] = useState<Defect['grade']>(d.grade)
  const options = grades.options
    .filter((g) => g === d.grade || isGraver(g, d.grade))
    .map((g) => ({ value: g, label: gradeWords[g].label }))
  const send = (worsened: boolean) => {
    onNote({ id: newId(), words, worsened, grade: worsened && to !== d.grade ? to : null })
    setWords('')
  }
  return (
    <Sheet title="Add to it">
      <div className="grid gap-3">
        <TextField label="What you saw" value={words} onChange={setWords} rows={2} />
        {mayWorsen && options.length > 1 && (
          <Choice label="If it has worsened, it is now" value={to} onChange={setTo} options={options} />
        )}
        <div className="flex flex-wrap gap-2">
          {mayWorsen && (
            <Button disabled={words.trim() === ''} onClick={() => send(true)}>
              It has worsened
            </Button>
          )}
          <Button disabled={words.trim() === ''} onClick={() => send(false)}>
            Add the note
          </Button>
          <AddPhoto defect={d.id} />
        </div>
      </div>
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

function Repair({ onSave }: { onSave: (body: { words: string; parts: string; hours: number }) => void }) {
  const [words, setWords] = useState('')
  const [parts, setParts] = useState('')
  const [hours, setHours] = useState<number | null>(null)
  return (
    <Sheet title="Your part: record the repair">
      <div className="grid gap-3">
        <TextField label="What was done" value={words} onChange={setWords} rows={3} />
        <TextField label="Parts" value={parts} onChange={setParts} />
        <HoursField value={hours} onChange={setHours} />
        <Button
          look="next"
          disabled={words.trim() === '' || hours === null}
          onClick={() => onSave({ words, parts, hours: hours ?? 0 })}
        >
          Record the repair
        </Button>
      </div>
    </Sheet>
  )
}

/** Hours of work or of a meter; a plain figure, not one of the converted quantities. */
function HoursField({
  label = 'Hours of work',
  value,
  onChange,
}: {
  label?: string
  value: number | null
  onChange: (v: number | null) => void
}) {
  const [text, setText] = useState(value === null ? '' : editPlain(value))
  return (
    <TextField
      label={label}
      value={text}
      error={typedFault(text) ?? undefined}
      onChange={(t) => {
        setText(t)
        onChange(typedFault(t) ? null : parsePlain(t))
      }}
    />
  )
}

function Return({ machine, onSave }: { machine: string; onSave: (words: string) => void }) {
  const [words, setWords] = useState('')
  return (
    <Sheet title="Your part: return to service">
      <div className="grid gap-3">
        <TextField label="What you looked at" value={words} onChange={setWords} rows={3} />
        <Button look="next" disabled={words.trim() === ''} onClick={() => onSave(words)}>
          Return {machine} to service
        </Button>
      </div>
    </Sheet>
  )
}
