import { type Defect, type MachineFile, overrideRequest, type RaiseDefectRequest, type Shift } from '@geolabe/contract'
import { itemsOf, preUseOf, symptomsOf } from '@geolabe/core'
import { DoorOpen, OctagonAlert } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../api/client'
import { queryClient } from '../api/me'
import { openInspection } from '../api/open-inspection'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Dialog } from '../look/dialog'
import { ChoiceEntry, FigureEntry } from '../look/entries'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused } from '../look/page'
import { SymptomWay } from './symptom'

const DefectForm = lazy(() => import('../defects/defect-form').then((m) => ({ default: m.DefectForm })))

type Open = 'ask' | 'defect' | 'override' | { symptom: string } | null

/** Beside every station: something has gone wrong, or somebody leaves the machine. An impact is two touches. */
export function Incident({ shift, file }: { shift: Shift; file: MachineFile }) {
  const [open, setOpen] = useState<Open>(null)
  const [error, setError] = useState<unknown>(null)
  const navigate = useNavigate()
  const m = file.definition
  const close = () => setOpen(null)
  const absence = itemsOf(m.walkround, 'after-absence').length > 0
  const under = shift.inspections.find((i) => i.occasion === 'after-absence' && !i.finishedAt)

  const stop = async (where: string, words: string) => {
    setError(null)
    const body: RaiseDefectRequest = { id: newId(), machine: m.id, shift: shift.id, item: null, where, words, grade: 'damage' }
    try {
      const sent = outbox.sendPatiently<Defect>('raise-defect', {}, body)
      close()
      await sent
      for (const key of ['machine', 'yard', 'defects']) void queryClient.invalidateQueries({ queryKey: [key] })
    } catch (e) {
      setError(e)
    }
  }
  const away = async () => {
    setError(null)
    try {
      navigate(`/shifts/${shift.id}/inspections/${await openInspection(shift, 'after-absence')}`)
    } catch (e) {
      setError(e)
    }
  }
  const small = 'inline-flex min-h-12 items-center gap-2 rounded-lg border-2 px-3 font-semibold'
  return (
    <>
      <div className="flex shrink-0 items-center justify-end gap-2">
        {absence && preUseOf(shift).finishedAt && (
          <button type="button" className={`${small} border-edge`} onClick={() => void away()}>
            <DoorOpen size={20} aria-hidden="true" />
            <span className="max-xl:sr-only">{under ? t`Go on with the walk-round` : t`I left the machine`}</span>
          </button>
        )}
        <button type="button" className={`${small} border-outside text-outside`} onClick={() => setOpen('ask')}>
          <OctagonAlert size={20} aria-hidden="true" /> <span className="max-xl:sr-only">{t`Report an incident`}</span>
        </button>
      </div>
      <Dialog open={error !== null} onClose={() => setError(null)} title={t`Not done`}>
        <Refused error={error} />
      </Dialog>
      <Dialog open={open === 'ask'} onClose={close} title={t`Report an incident on ${m.name}`}>
        <div className="grid gap-3">
          <Button
            look="stop"
            className="min-h-16 justify-center text-lg"
            onClick={() => void stop(t`In work`, t`Knock or impact in work; to be examined before it is used again`)}
          >{t`Knock or impact: stop ${m.name}`}</Button>
          <p className="text-quiet">{t`It is stopped at once, for everyone, until it has been examined. You can add words and a photo after.`}</p>
          {symptomsOf(m).length > 0 && (
            <>
              <h3 className="mt-2">{t`It does something it should not`}</h3>
              <div className="grid gap-2 sm:grid-cols-2">
                {symptomsOf(m).map((s) => (
                  <Button key={s.id} onClick={() => setOpen({ symptom: s.id })}>
                    {s.symptom}
                  </Button>
                ))}
              </div>
            </>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            <Button onClick={() => setOpen('defect')}>{t`Report a defect`}</Button>
            {m.overrides.length > 0 && <Button onClick={() => setOpen('override')}>{t`Record an override`}</Button>}
          </div>
        </div>
      </Dialog>
      <Dialog open={open === 'defect'} onClose={close} title={t`Report a defect: ${m.name}`}>
        <Suspense>
          <DefectForm
            machine={m.id}
            definition={m}
            shift={shift.id}
            item={null}
            where={null}
            near={null}
            onRaised={(id) => navigate(`/defects/${id}`)}
          />
        </Suspense>
      </Dialog>
      <Dialog open={open === 'override'} onClose={close} title={t`Record an override`}>
        <OverrideForm shift={shift} file={file} onDone={close} />
      </Dialog>
      {symptomsOf(m).map((s) => (
        <Dialog key={s.id} open={typeof open === 'object' && open?.symptom === s.id} onClose={close} title={s.symptom}>
          <SymptomWay path={s} onStop={(words) => void stop(s.symptom, words)} onClose={close} />
        </Dialog>
      ))}
    </>
  )
}

/** One permitted purpose, held by hand, timed; what must follow stands in the handover until it is done. */
function OverrideForm({ shift, file, onDone }: { shift: Shift; file: MachineFile; onDone: () => void }) {
  const all = file.definition.overrides
  const [error, setError] = useState<unknown>(null)
  const form = useEntry(overrideRequest, { id: newId(), override: all.length === 1 ? all[0]?.id : '', reason: '' })
  const { control } = form
  const [which, seconds] = form.watch(['override', 'seconds'])
  const o = all.find((x) => x.id === which)
  const record = form.handleSubmit(async (body) => {
    setError(null)
    try {
      putShift(shift.id, await outbox.send<Shift>('use-override', { shift: shift.id }, body))
      void queryClient.invalidateQueries({ queryKey: ['machine', file.definition.id] })
      onDone()
    } catch (e) {
      setError(e)
    }
  })
  return (
    <Form onSubmit={record}>
      <ChoiceEntry
        control={control}
        name="override"
        label={t`Which`}
        options={all.map((x) => ({ value: x.id, label: x.label }))}
      />
      {o && (
        <>
          <p>{rich`Allowed for one thing: ${<strong>{o.purpose.toLowerCase()}</strong>}. Held by hand, at most ${o.most_s} s.`}</p>
          <TextEntry control={control} name="reason" label={t`What it was used for`} rows={2} />
          <FigureEntry
            control={control}
            name="seconds"
            label={t`Held for, seconds`}
            hint={(seconds ?? 0) > o.most_s ? t`Longer than the ${o.most_s} s allowed; it is recorded so.` : ''}
          />
          <p className="border-l-4 border-near pl-3 font-semibold">{t`Must follow: ${o.after.toLowerCase()}.`}</p>
          {o.stops && <p className="font-semibold text-outside">{t`Its use takes the machine out of service at once.`}</p>}
          <Refused error={error} />
          <Button look="next" type="submit">{t`Record it`}</Button>
        </>
      )}
    </Form>
  )
}
