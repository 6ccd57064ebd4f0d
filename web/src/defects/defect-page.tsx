import { type Defect, gradeWords, stopsMachine } from '@geolabe/contract'
import type { Role } from '@geolabe/core'
import { type ReactNode, useState } from 'react'
import { useParams } from 'react-router'
import { outbox } from '../api/outbox'
import { queryClient, useDefect, useMe } from '../api/queries'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Loaded, Refused, Sheet, Title } from '../look/page'
import { when } from '../look/when'
import { stateWords } from './defects'

/** One defect through its whole life; each step by whose part it is. */
export function DefectPage() {
  const { id = '' } = useParams()
  const query = useDefect(id)
  return <Loaded query={query}>{(d) => <Life defect={d} />}</Loaded>
}

function Life({ defect: d }: { defect: Defect }) {
  const roles = useMe().data?.roles ?? []
  const me = useMe().data?.id
  const [error, setError] = useState<unknown>(null)
  const stops = stopsMachine(d.grade)
  const act = async (step: string, body: object) => {
    setError(null)
    try {
      queryClient.setQueryData(['defects', d.id], await outbox.send<Defect>(`/defects/${d.id}/${step}`, body))
      for (const key of ['yard', 'machine']) void queryClient.invalidateQueries({ queryKey: [key] })
    } catch (e) {
      setError(e)
    }
  }
  const has = (r: Role) => roles.includes(r)
  const mayReturn =
    has('person-in-charge') && d.repair?.by.id !== me && (d.state === 'repaired' || (d.state === 'seen' && !stops))
  return (
    <>
      <Title below={`${gradeWords[d.grade].label}. ${gradeWords[d.grade].means}`}>{`${d.machine.name}: ${d.where}`}</Title>
      {stops && d.state !== 'returned' && (
        <div className="mb-4 overflow-hidden rounded-xl border-2 border-outside bg-sheet">
          <div className="h-3 hatch-outside" />
          <p className="p-4 text-lg">
            <strong className="text-outside">{d.machine.name} is stopped.</strong>{' '}
            {d.state === 'repaired'
              ? 'The repair is recorded; the person in charge looks and returns it to service.'
              : 'Nobody uses it until a fitter has recorded the repair and the person in charge has returned it.'}
          </p>
        </div>
      )}
      <div className="grid items-start gap-4 pb-8 md:grid-cols-2">
        <Sheet title={stateWords[d.state]}>
          <ol className="grid gap-4">
            <Step title="Raised" by={d.raised}>
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
            {d.seen && <Step title="Acknowledged" by={d.seen} />}
            {d.repair && (
              <Step title="Repair recorded" by={d.repair}>
                <p>{d.repair.words}</p>
                <p className="text-quiet">
                  {d.repair.parts || 'No parts'} · {d.repair.hours} h
                </p>
              </Step>
            )}
            {d.returned && (
              <Step title="Returned to service" by={d.returned}>
                <p>{d.returned.words}</p>
              </Step>
            )}
          </ol>
        </Sheet>
        <div className="grid gap-4">
          {has('person-in-charge') && d.state === 'raised' && (
            <Sheet title="Your part: acknowledge">
              <Button look="next" onClick={() => void act('seen', {})}>
                I have seen this
              </Button>
            </Sheet>
          )}
          {has('fitter') && (d.state === 'raised' || d.state === 'seen') && (
            <Repair onSave={(body) => void act('repair', body)} />
          )}
          {mayReturn && <Return machine={d.machine.name} onSave={(words) => void act('return', { words })} />}
          {has('person-in-charge') && stops && (d.state === 'raised' || d.state === 'seen') && (
            <p className="text-quiet">Returning to service waits for a fitter’s recorded repair.</p>
          )}
          {has('fitter') && d.state === 'repaired' && (
            <p className="text-quiet">Returning to service is the part of the person in charge.</p>
          )}
          <Refused error={error} />
        </div>
      </div>
    </>
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

/** Hours of work; a plain figure, not one of the converted quantities. */
function HoursField({ value, onChange }: { value: number | null; onChange: (v: number | null) => void }) {
  const [text, setText] = useState(value === null ? '' : String(value))
  const parsed = /^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : null
  return (
    <TextField
      label="Hours of work"
      value={text}
      error={text.trim() !== '' && parsed === null ? 'Not a figure.' : undefined}
      onChange={(t) => {
        setText(t)
        onChange(/^\d+([.,]\d+)?$/.test(t.trim()) ? Number(t.trim().replace(',', '.')) : null)
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
