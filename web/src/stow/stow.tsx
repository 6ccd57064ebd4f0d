import type { HandoverRequest, Shift } from '@geolabe/contract'
import { handoverLines, itemsOf, leftAsItStands, type Machine, nearLimits, preUseOf } from '@geolabe/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useDraft } from '../api/draft'
import { queryClient } from '../api/me'
import { openInspection } from '../api/open-inspection'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { NumberField, TextField } from '../look/field'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { useShiftContext } from '../order/context'
import { OrderSteps, openSteps } from '../order/steps'
import { useOrder } from '../order/use-order'
import { parsePlain, typedFault } from '../units/units'
import { HandoverLines } from './handover-lines'

interface Draft {
  hours: string
  fuel_share: number | null
  standsAt: string
  leftAs: string
  limitsOn: string
  words: string
}

/** The last station: stow in its own order, park, and leave the next person what they must know. */
export function Stow() {
  const { shift, file } = useShiftContext()
  const machine = file.definition
  const navigate = useNavigate()
  const [draft, setDraft, clear] = useDraft<Draft>(`${shift.id}.stow`, {
    hours: '',
    fuel_share: null,
    standsAt: '',
    leftAs: '',
    limitsOn: '',
    words: '',
  })
  const [error, setError] = useState<unknown>(null)
  const [leaving, setLeaving] = useState(false)
  const [tab, setTab] = useState<'left' | 'read'>('left')
  const hours = typedFault(draft.hours) ? null : parsePlain(draft.hours)
  const order = useOrder()
  const open = openSteps(order, 'stow')
  const waiting = shift.lifts.filter((l) => !l.outcome).length
  const atEnd = itemsOf(machine.walkround, 'end-of-shift').length > 0
  const last = shift.inspections.findLast((i) => i.occasion === 'end-of-shift')
  const walked = Boolean(last?.finishedAt)
  const why =
    atEnd && !walked
      ? t`Walk round once more first.`
      : waiting > 0
        ? t`A proven lift waits for how it ended.`
        : open > 0
          ? plural(open, { one: '# step to confirm.', other: '# steps to confirm.' })
          : machine.hours && hours === null
            ? t`Read the ${machine.hours.label.toLowerCase()}.`
            : ''
  const set = (to: Partial<Draft>) => setDraft((d) => ({ ...d, ...to }))

  const walk = async () => {
    setError(null)
    try {
      navigate(`/shifts/${shift.id}/inspections/${await openInspection(shift, 'end-of-shift')}`)
    } catch (e) {
      setError(e)
    }
  }
  // As the next person will read it: from the record, and what is entered here.
  const lines = handoverLines({
    defects: [...file.stopping, ...file.watched].map((d) => ({ ...d, worsened: d.worsenedAt !== null })),
    nearLimit: nearLimits(
      machine.walkround,
      file.readings,
      Object.fromEntries(preUseOf(shift).entries.map((m) => [m.item, m.reading])),
    ),
    overrides: shift.overrides.map((o) => ({ ...o, followed: o.followedAt !== null })),
    due: file.due,
    hours,
    energy: machine.energy ? { label: machine.energy.label, share: draft.fuel_share } : null,
    standsAt: draft.standsAt,
    leftAs: draft.leftAs ?? '',
    limitsOn: draft.limitsOn ?? '',
  })
  const close = async (leftAsItStands: HandoverRequest['leftAsItStands'] = null) => {
    setError(null)
    const body: HandoverRequest = {
      leftAsItStands,
      hours,
      fuel_share: draft.fuel_share,
      standsAt: draft.standsAt,
      leftAs: draft.leftAs ?? '',
      limitsOn: draft.limitsOn ?? '',
      words: draft.words,
    }
    try {
      const closed = await outbox.send<Shift>('close-shift', { shift: shift.id }, body)
      putShift(shift.id, closed)
      void queryClient.invalidateQueries({ queryKey: ['yard'] })
      clear()
      navigate(`/records/${shift.id}`)
    } catch (e) {
      setError(e)
    }
  }
  return (
    <>
      <Station
        title={t`Stow & hand over`}
        below={t`The shift closes with this. The next person reads it first.`}
        head={<Refused error={error} />}
        drawing={
          <section
            aria-label={t`In this order`}
            className="max-h-[68dvh] overflow-y-auto rounded-xl border border-line bg-sheet p-3.5 roomy:h-full roomy:max-h-none"
          >
            <OrderSteps order={order} station="stow" />
          </section>
        }
        sheet={
          <Sheets
            label={t`The handover`}
            open={tab}
            onOpen={setTab}
            tabs={[
              {
                id: 'left',
                name: t`What you leave`,
                verdict: machine.hours && hours === null ? 'not-proven' : null,
                body: <Left machine={machine} hoursBefore={file.state.hours} hours={hours} draft={draft} set={set} />,
              },
              {
                id: 'read',
                name: t`What the next person will read`,
                body: (
                  <>
                    <HandoverLines lines={lines} />
                    {draft.words && <p className="mt-3 text-lg">“{draft.words}”</p>}
                  </>
                ),
              },
            ]}
          />
        }
        why={why}
        actions={
          <>
            <Button look="quiet" onClick={() => setLeaving(true)}>{t`Leave it as it stands`}</Button>
            {atEnd && !walked && <Button look="next" onClick={() => void walk()}>{t`Walk round once more`}</Button>}
            <Button
              look={atEnd && !walked ? 'plain' : 'next'}
              disabled={why !== ''}
              onClick={() => void close()}
            >{t`Hand over ${machine.name}`}</Button>
          </>
        }
      />
      {leaving && (
        <LeaveAsItStands machine={machine.name} onLeave={(left) => void close(left)} onClose={() => setLeaving(false)} />
      )}
    </>
  )
}

/** Meter, fuel, where and how it stands, and words. */
function Left({
  machine,
  hoursBefore,
  hours,
  draft,
  set,
}: {
  machine: Machine
  hoursBefore: number | null
  hours: number | null
  draft: Draft
  set: (to: Partial<Draft>) => void
}) {
  return (
    <div className="grid gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        {machine.hours && (
          <TextField
            label={machine.hours.label}
            value={draft.hours}
            onChange={(v) => set({ hours: v })}
            inputMode="numeric"
            hint={hoursBefore === null ? '' : t`Last reading ${hoursBefore}.`}
            error={draft.hours.trim() !== '' && hours === null ? t`Not a figure.` : undefined}
          />
        )}
        {machine.energy && (
          <NumberField
            label={machine.energy.label}
            quantity="share"
            value={draft.fuel_share}
            least={0}
            most={1}
            onChange={(fuel_share) => set({ fuel_share })}
          />
        )}
      </div>
      <TextField label={t`Words for the next person`} value={draft.words} onChange={(words) => set({ words })} rows={2} />
      <TextField label={t`Where it stands`} value={draft.standsAt} onChange={(standsAt) => set({ standsAt })} />
      <TextField
        label={t`Left as: outriggers, forks, boom`}
        value={draft.leftAs ?? ''}
        onChange={(leftAs) => set({ leftAs })}
        hint={t`Outriggers in and pinned, forks on the floor, boom in its rest…`}
      />
      <TextField
        label={t`Working limits left on`}
        value={draft.limitsOn ?? ''}
        onChange={(limitsOn) => set({ limitsOn })}
        hint={t`Empty: none.`}
      />
    </div>
  )
}

/** Broken down, or called away: nothing is confirmed that was not done, and the machine is stopped until somebody takes it back. */
function LeaveAsItStands({
  machine,
  onLeave,
  onClose,
}: {
  machine: string
  onLeave: (left: NonNullable<HandoverRequest['leftAsItStands']>) => void
  onClose: () => void
}) {
  const form = useEntry(leftAsItStands, { how: '', madeSafe: '', takenBackBy: '' })
  const { control } = form
  return (
    <Dialog open onClose={onClose} title={t`Leave ${machine} as it stands`}>
      <Form onSubmit={form.handleSubmit(onLeave)}>
        <p>{t`No step is confirmed that was not done. ${machine} is stopped with a tag until it is looked at and returned to service.`}</p>
        <TextEntry
          control={control}
          name="how"
          label={t`What stands how`}
          hint={t`What hangs, what is raised, which outriggers are out.`}
          rows={2}
        />
        <TextEntry
          control={control}
          name="madeSafe"
          label={t`Made safe how, as far as it could be`}
          hint={t`People kept off, chocked, isolated, propped.`}
          rows={2}
        />
        <TextEntry control={control} name="takenBackBy" label={t`Who takes it back`} />
        <Button look="next" type="submit">{t`Leave it, tagged and stopped`}</Button>
      </Form>
    </Dialog>
  )
}
