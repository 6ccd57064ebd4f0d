import { type Defect, type Grade, photoLimit_bytes, raiseDefectRequest, stopsMachine } from '@geolabe/contract'
import { gradeBy, gradesFrom, isGraver, type Machine } from '@geolabe/core'
import { Camera } from 'lucide-react'
import { useState } from 'react'
import { useController, useWatch } from 'react-hook-form'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { SpotOn } from '../instruments/spot'
import { t } from '../language/t'
import { gradeWords } from '../language/words'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { FileButton } from '../look/file-button'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused } from '../look/page'
import { smaller } from './photo'

type Entry = ReturnType<typeof useEntry<typeof raiseDefectRequest>>

interface Props {
  machine: string
  shift: string | null
  item: string | null
  where: string | null
  /** The machine whole, where it is at hand: to show the place on its outline, and who grades. */
  definition: Machine | null
  /** Where the zone lies that it was found in. */
  near: readonly [number, number] | null
  onRaised: (id: string) => void
}

/** What is wrong, how grave, a picture if it helps. The first two grades stop the machine for everyone. */
export function DefectForm({ machine, shift, item, where, definition, near, onRaised }: Props) {
  const [id] = useState(newId)
  const form = useEntry(raiseDefectRequest, {
    id,
    machine,
    shift,
    item,
    where: where ?? '',
    words: '',
    spot: near && definition ? { view: 'plan', at: nearest(definition, near) } : null,
  })
  const { control } = form
  const { field: placed } = useController({ control, name: 'spot' })
  const chosen: Grade | undefined = useWatch({ control, name: 'grade' })
  const [view, setView] = useState<'plan' | 'side'>('plan')
  const [photo, setPhoto] = useState<File | null>(null)
  const [error, setError] = useState<unknown>(null)

  const least = definition?.walkround.zones.flatMap((z) => z.items).find((i) => i.id === item)?.leastGrade
  const untilGraded = definition?.defectPolicy === 'stops-until-graded'

  const submit = form.handleSubmit(async (body) => {
    setError(null)
    try {
      const picture = photo ? await smaller(photo) : null
      const raised = outbox.sendPatiently<Defect>('raise-defect', {}, body)
      if (picture) {
        // The defect stands without its picture; a picture that is refused is said, and taken again from the defect.
        outbox.sendPatiently('add-photo', { defect: id, photo: newId() }, picture).catch(setError)
      }
      await raised
      for (const key of ['yard', 'machine', 'defects']) void queryClient.invalidateQueries({ queryKey: [key] })
      onRaised(id)
    } catch (err) {
      setError(err)
    }
  })
  return (
    <Form onSubmit={submit} className="grid gap-4">
      {where === null && <TextEntry control={control} name="where" label={t`Where on the machine`} />}
      <TextEntry control={control} name="words" label={t`What is wrong`} rows={3} autoFocus />
      {definition && (
        <div>
          <div className="mb-1 flex flex-wrap items-end justify-between gap-2">
            <p className="font-semibold">{t`Where on it`}</p>
            <Choice
              label={t`View`}
              hideLabel
              value={view}
              onChange={setView}
              options={[
                { value: 'plan', label: t`From above` },
                { value: 'side', label: t`From its left` },
              ]}
            />
          </div>
          <SpotOn machine={definition} spot={placed.value ?? null} onSpot={placed.onChange} view={view} />
        </div>
      )}
      <GradeField control={control} least={least} />
      <FileButton
        accept="image/*"
        onFile={(file) => {
          const fits = file.size <= photoLimit_bytes * 5
          setError(fits ? null : new Error('This file is too large to be a photo; choose another.'))
          setPhoto(fits ? file : null)
        }}
      >
        <Camera aria-hidden="true" /> {photo ? photo.name : t`Add a photo`}
      </FileButton>
      {untilGraded && chosen === 'watch' && (
        <p className="border-l-4 border-near pl-3 font-semibold">{t`On this machine any defect stops it until the person in charge has graded it.`}</p>
      )}
      <Refused error={error} />
      <Button
        look={chosen && stopsMachine(chosen) ? 'stop' : 'next'}
        type="submit"
        disabled={form.formState.isSubmitting}
        className="min-h-16 justify-center text-lg disabled:opacity-60"
      >
        {chosen && (stopsMachine(chosen) || untilGraded) ? t`Enter it and stop the machine` : t`Enter the defect`}
      </Button>
    </Form>
  )
}

/** One of the grades, by oneself or by two questions. It comes after the words, so that what is missing is gone to from the top. */
function GradeField({ control, least }: { control: Entry['control']; least: Grade | undefined }) {
  const { field: grading, fieldState: graded } = useController({ control, name: 'grade' })
  const [helper, setHelper] = useState(false)
  const chosen: Grade | undefined = grading.value
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{t`How grave`}</legend>
      {helper ? (
        <GradeHelper onGrade={(g) => grading.onChange(least && isGraver(least, g) ? least : g)} />
      ) : (
        <Button look="quiet" onClick={() => setHelper(true)}>{t`Not sure? Two questions`}</Button>
      )}
      {least && <p className="mb-2 font-semibold">{t`A fault here stops the machine.`}</p>}
      <div className="grid gap-2">
        {gradesFrom(least).map((g) => (
          <label
            key={g}
            className={`flex min-h-14 cursor-pointer items-center gap-3 rounded-lg border-2 px-3 py-2 has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-ink ${chosen === g ? 'border-ink bg-sunk' : 'border-line bg-sheet'}`}
          >
            <input
              type="radio"
              name="grade"
              value={g}
              checked={chosen === g}
              ref={grading.ref}
              onChange={() => grading.onChange(g)}
              className="size-5 accent-(--ink)"
            />
            <span>
              <span className={stopsMachine(g) ? 'font-bold text-outside' : 'font-bold text-near'}>{gradeWords[g].label}</span>
              <span className="block text-[0.95rem] text-quiet">{gradeWords[g].means}</span>
            </span>
          </label>
        ))}
      </div>
      {graded.error && <p className="mt-1 font-semibold text-outside">{t`Say how grave it is.`}</p>}
    </fieldset>
  )
}

/** The nearest corner of the machine's outline to where one stands: a beginning to move from. */
function nearest(m: Machine, at: readonly [number, number]): [number, number] {
  const points = m.outline.plan.flatMap((p) => p.points)
  const far = (p: readonly [number, number]) => (p[0] - at[0]) ** 2 + (p[1] - at[1]) ** 2
  return [...points].sort((a, b) => far(a) - far(b))[0] ?? [0, 0]
}

type Answer = 'yes' | 'no' | 'unsure'
const answers = [
  { value: 'yes', label: t`Yes` },
  { value: 'no', label: t`No` },
  { value: 'unsure', label: t`Not sure` },
] as const

/** Two questions, and what they make it. */
function GradeHelper({ onGrade }: { onGrade: (g: Grade) => void }) {
  const [hurt, setHurt] = useState<Answer | null>(null)
  const [worse, setWorse] = useState<Answer | null>(null)
  return (
    <div className="mb-2 grid gap-2 rounded-lg border border-line p-3">
      <Choice
        label={t`Could it hurt someone?`}
        value={hurt}
        options={answers}
        onChange={(v) => {
          setHurt(v)
          if (v !== 'no') onGrade(gradeBy(v, 'no'))
          else if (worse) onGrade(gradeBy(v, worse))
        }}
      />
      {hurt === 'no' && (
        <Choice
          label={t`Could running on make it worse?`}
          value={worse}
          options={answers}
          onChange={(v) => {
            setWorse(v)
            onGrade(gradeBy('no', v))
          }}
        />
      )}
    </div>
  )
}
