import {
  type Defect,
  type Grade,
  grade,
  gradeWords,
  photoLimit_bytes,
  type RaiseDefectRequest,
  stopsMachine,
} from '@geolabe/contract'
import { Camera } from 'lucide-react'
import { type FormEvent, useState } from 'react'
import { newId } from '../api/client'
import { outbox } from '../api/outbox'
import { queryClient } from '../api/queries'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Refused } from '../look/page'
import { smaller } from './photo'

interface Props {
  machine: string
  shift: string | null
  item: string | null
  where: string | null
  onRaised: (id: string) => void
}

/** What is wrong, how grave, a picture if it helps. The first two grades stop the machine for everyone. */
export function DefectForm({ machine, shift, item, where, onRaised }: Props) {
  const [place, setPlace] = useState(where ?? '')
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<Grade | null>(null)
  const [photo, setPhoto] = useState<File | null>(null)
  const [error, setError] = useState<unknown>(null)
  const [id] = useState(newId)
  const [sending, setSending] = useState(false)

  const submit = async (e: FormEvent) => {
    e.preventDefault()
    if (!chosen) return
    setSending(true)
    setError(null)
    try {
      const picture = photo ? await smaller(photo) : null
      const body: RaiseDefectRequest = { id, machine, shift, item, where: place, words, grade: chosen }
      const raised = outbox.send<Defect>('/defects', body)
      if (picture) {
        // The defect stands without its picture; a picture that is refused is said, and taken again from the defect.
        outbox.send(`/defects/${id}/photos/${newId()}`, picture, 'PUT').catch(setError)
      }
      await raised
      for (const key of ['yard', 'machine', 'defects']) void queryClient.invalidateQueries({ queryKey: [key] })
      onRaised(id)
    } catch (err) {
      setError(err)
    } finally {
      setSending(false)
    }
  }
  return (
    <form onSubmit={(e) => void submit(e)} className="grid gap-4">
      {where === null && <TextField label="Where on the machine" value={place} onChange={setPlace} />}
      <TextField label="What is wrong" value={words} onChange={setWords} rows={3} autoFocus />
      <fieldset>
        <legend className="mb-1 font-semibold">How grave</legend>
        <div className="grid gap-2">
          {grade.options.map((g) => (
            <label
              key={g}
              className={`flex min-h-14 cursor-pointer items-center gap-3 rounded-lg border-2 px-3 py-2 has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-ink ${chosen === g ? 'border-ink bg-sunk' : 'border-line bg-sheet'}`}
            >
              <input
                type="radio"
                name="grade"
                value={g}
                checked={chosen === g}
                onChange={() => setChosen(g)}
                className="size-5 accent-(--ink)"
              />
              <span>
                <span className={stopsMachine(g) ? 'font-bold text-outside' : 'font-bold text-near'}>{gradeWords[g].label}</span>
                <span className="block text-[0.95rem] text-quiet">{gradeWords[g].means}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      <label className="flex min-h-12 w-fit cursor-pointer items-center gap-2 rounded-lg border-2 border-edge px-4 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-ink">
        <Camera aria-hidden="true" /> {photo ? photo.name : 'Add a photo'}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0] ?? null
            setError(
              file && file.size > photoLimit_bytes * 5
                ? new Error('This file is too large to be a photo; choose another.')
                : null,
            )
            setPhoto(file && file.size <= photoLimit_bytes * 5 ? file : null)
          }}
        />
      </label>
      <Refused error={error} />
      <Button
        look={chosen && stopsMachine(chosen) ? 'stop' : 'next'}
        type="submit"
        disabled={!chosen || words.trim() === '' || place.trim() === '' || sending}
        className="min-h-16 justify-center text-lg disabled:opacity-60"
      >
        {chosen && stopsMachine(chosen) ? 'Enter it and stop the machine' : 'Enter the defect'}
      </Button>
    </form>
  )
}
