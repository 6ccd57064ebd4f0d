import type { HandOverRequest, Shift } from '@geolabe/contract'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { queryClient } from '../api/queries'
import { Button } from '../look/button'
import { NumberField, TextField } from '../look/field'
import { ActionBar, Refused, Sheet, Title } from '../look/page'
import { useShiftContext } from '../shift/frame'
import { Steps } from '../shift/steps'

interface Draft {
  steps: string[]
  hours: string
  fuel_share: number | null
  standsAt: string
  words: string
}

/** The last station: stow in its own order, park, and leave the next person what they must know. */
export function Stow() {
  const { shift, file } = useShiftContext()
  const machine = file.definition
  const navigate = useNavigate()
  const [draft, setDraft, clear] = useDraft<Draft>(`${shift.id}.stow`, {
    steps: [],
    hours: '',
    fuel_share: null,
    standsAt: '',
    words: '',
  })
  const [error, setError] = useState<unknown>(null)
  const hours = /^\d+([.,]\d+)?$/.test(draft.hours.trim()) ? Number(draft.hours.trim().replace(',', '.')) : null
  const open = machine.procedures.stow.filter((s) => !draft.steps.includes(s.id)).length
  const waiting = shift.lifts.filter((l) => !l.outcome).length
  const why =
    waiting > 0
      ? 'A proven lift waits for how it ended.'
      : open > 0
        ? `${open} ${open === 1 ? 'step' : 'steps'} to confirm.`
        : machine.hours && hours === null
          ? `Read the ${machine.hours.label.toLowerCase()}.`
          : ''
  const set = (to: Partial<Draft>) => setDraft((d) => ({ ...d, ...to }))

  const close = async () => {
    setError(null)
    const body: HandOverRequest = {
      steps: draft.steps,
      hours,
      fuel_share: draft.fuel_share,
      standsAt: draft.standsAt,
      words: draft.words,
    }
    try {
      const closed = await outbox.send<Shift>(`/shifts/${shift.id}/hand-over`, body)
      queryClient.setQueryData(['shift', shift.id], closed)
      void queryClient.invalidateQueries({ queryKey: ['yard'] })
      clear()
      navigate(`/records/${shift.id}`)
    } catch (e) {
      setError(e)
    }
  }
  return (
    <>
      <Title below="The shift closes with this. The next person reads it first.">Stow & hand over</Title>
      <div className="grid items-start gap-5 lg:grid-cols-2">
        <Sheet title="In this order">
          <Steps steps={machine.procedures.stow} confirmed={draft.steps} onChange={(steps) => set({ steps })} />
        </Sheet>
        <div className="grid gap-4">
          <Sheet title="What you leave">
            <div className="grid gap-3">
              {machine.hours && (
                <TextField
                  label={machine.hours.label}
                  value={draft.hours}
                  onChange={(v) => set({ hours: v })}
                  inputMode="numeric"
                  hint={file.state.hours === null ? '' : `Last reading ${file.state.hours}.`}
                  error={draft.hours.trim() !== '' && hours === null ? 'Not a figure.' : undefined}
                />
              )}
              <NumberField
                label="Fuel left"
                quantity="share"
                value={draft.fuel_share}
                least={0}
                most={1}
                onChange={(fuel_share) => set({ fuel_share })}
              />
              <TextField label="Where it stands" value={draft.standsAt} onChange={(standsAt) => set({ standsAt })} />
              <TextField label="Words for the next person" value={draft.words} onChange={(words) => set({ words })} rows={4} />
            </div>
          </Sheet>
          {file.watched.length > 0 && (
            <Sheet title="Goes with it: watched defects">
              <ul>
                {file.watched.map((d) => (
                  <li key={d.id}>
                    <Link className="underline underline-offset-4" to={`/defects/${d.id}`}>
                      {d.where}
                    </Link>
                    : {d.words}
                  </li>
                ))}
              </ul>
            </Sheet>
          )}
          <Refused error={error} />
        </div>
      </div>
      <ActionBar why={why}>
        <Button look="next" disabled={why !== ''} onClick={() => void close()}>
          Hand over {machine.name}
        </Button>
      </ActionBar>
    </>
  )
}
