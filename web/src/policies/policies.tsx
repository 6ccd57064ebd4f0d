import { type Me, type PolicyPage, setPolicyRequest } from '@geolabe/contract'
import { answerIn, isSofter, type Place, type PolicyQuestion, policyQuestions, usualPolicy } from '@geolabe/core'
import { useState } from 'react'
import { useController } from 'react-hook-form'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { usePlaces, usePolicies } from '../api/queries'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { Dialog } from '../look/dialog'
import { ChoiceEntry } from '../look/entries'
import { NumberField, PlainField } from '../look/field'
import { Form, TextEntry, useEntry } from '../look/form'
import { Loaded, Refused, Title } from '../look/page'
import { when } from '../look/when'
import { useSay } from '../units/units'

/** Where practice differs: what each site answers, what it is without, and why; changed by the person in charge. */
export function Policies({ me }: { me: Me }) {
  const places = usePlaces()
  return (
    <>
      <Title
        below={t`Where good people do it differently, a site says how it is done here. Both ways are reckoned properly.`}
      >{t`Site policies`}</Title>
      <Loaded query={places}>{({ places }) => <OfPlaces places={places} me={me} />}</Loaded>
    </>
  )
}

function OfPlaces({ places, me }: { places: readonly Place[]; me: Me }) {
  const [chosen, setChosen] = useState(places[0]?.id ?? '')
  const page = usePolicies(chosen)
  return (
    <div className="grid gap-4 pb-8">
      <Choice label={t`Site`} value={chosen} onChange={setChosen} options={places.map((p) => ({ value: p.id, label: p.name }))} />
      <Loaded query={page}>{(p) => <Answers key={p.place} page={p} may={me.roles.includes('person-in-charge')} />}</Loaded>
    </div>
  )
}

function Answers({ page, may }: { page: PolicyPage; may: boolean }) {
  const inWords = useInWords()
  const [open, setOpen] = useState<PolicyQuestion | null>(null)
  return (
    <>
      <ul className="overflow-hidden rounded-xl border border-line bg-sheet">
        {policyQuestions.map((q) => {
          const own = page.answers.find((a) => a.policy === q.id)
          if (!own) return null
          const usual = answerIn(usualPolicy, q.id)
          const softer = isSofter(q, own.value)
          return (
            <li
              key={q.id}
              className="grid gap-x-4 border-t border-line p-3 first:border-t-0 sm:grid-cols-[1fr_auto] sm:items-center"
            >
              <div>
                <h2 className="text-[1rem] font-normal">
                  {told(q.question)}: <strong className={softer ? 'text-near' : ''}>{inWords(q, own.value)}</strong>
                </h2>
                <p className="text-[0.92rem] text-quiet">
                  {own.value !== usual && t`Without an answer: ${inWords(q, usual)}. `}
                  {own.set
                    ? `${own.set.by.name}, ${when(own.set.at)}: ${own.set.why}${own.set.engineer ? t` Engineer: ${own.set.engineer}.` : ''}`
                    : told(q.why)}
                </p>
              </div>
              {may && <Button aria-label={t`Change: ${told(q.question)}`} onClick={() => setOpen(q)}>{t`Change`}</Button>}
            </li>
          )
        })}
      </ul>
      {open && <Change key={open.id} place={page.place} question={open} page={page} onClose={() => setOpen(null)} />}
    </>
  )
}

/** An answer as it is said. */
function useInWords() {
  const say = useSay()
  return ({ answer }: PolicyQuestion, value: number | string): string =>
    'choices' in answer
      ? told(answer.choices.find((c) => c.value === value)?.label ?? String(value)).toLowerCase()
      : answer.quantity === 'plain' || typeof value === 'string'
        ? String(value)
        : say(answer.quantity, value)
}

function Change({
  place,
  question,
  page,
  onClose,
}: {
  place: string
  question: PolicyQuestion
  page: PolicyPage
  onClose: () => void
}) {
  const inWords = useInWords()
  const value = page.answers.find((a) => a.policy === question.id)?.value ?? ''
  const form = useEntry(setPolicyRequest, { policy: question.id, value, why: '', engineer: '' })
  const { field, fieldState } = useController({ control: form.control, name: 'value' })
  const [error, setError] = useState<unknown>(null)
  const { answer } = question
  const softer = field.value !== '' && isSofter(question, field.value)
  const submit = form.handleSubmit(async (body) => {
    setError(null)
    try {
      const path = `/places/${place}/policies`
      queryClient.setQueryData(['policies', place], await call<PolicyPage>({ method: 'POST', path, body, key: newId() }))
      void queryClient.invalidateQueries({ queryKey: ['places'] })
      onClose()
    } catch (e) {
      setError(e)
    }
  })
  const figure = {
    label: told(question.question),
    value: typeof field.value === 'number' ? field.value : null,
    onChange: (v: number | null) => field.onChange(v ?? ''),
    error: fieldState.error?.message,
  }
  return (
    <Dialog open onClose={onClose} title={t`Change a policy`}>
      <Form onSubmit={submit}>
        <p>{t`${told(question.why)} Without an answer: ${inWords(question, answerIn(usualPolicy, question.id))}.`}</p>
        {'choices' in answer ? (
          <ChoiceEntry
            control={form.control}
            name="value"
            label={told(question.question)}
            options={answer.choices.map((c) => ({ ...c, label: told(c.label) }))}
          />
        ) : answer.quantity === 'plain' ? (
          <PlainField {...figure} />
        ) : (
          <NumberField {...figure} quantity={answer.quantity} />
        )}
        <TextEntry control={form.control} name="why" label={t`Why here`} rows={2} />
        {softer && (
          <>
            <p className="border-l-4 border-near pl-3 font-semibold">{t`Softer than without an answer: an engineer has to stand for it.`}</p>
            <TextEntry control={form.control} name="engineer" label={t`Which engineer`} />
          </>
        )}
        <Refused error={error} />
        <Button look="next" type="submit">{t`It is so here from now on`}</Button>
      </Form>
    </Dialog>
  )
}
