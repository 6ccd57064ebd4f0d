import type { ProcedureRequest, Shift } from '@geolabe/contract'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { newId } from '../api/client'
import { useDraft } from '../api/draft'
import { outbox } from '../api/outbox'
import { putShift } from '../api/queries'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { Station } from '../look/station'
import { useShiftContext } from './frame'
import { nextStation } from './route-line'
import { Steps } from './steps'

/** A station of a machine that is not proved on the dial: its own written sequence, and where its ratings stand. */
export function Sequence({ procedure }: { procedure: 'setup' | 'lift' }) {
  const { shift, file } = useShiftContext()
  const m = file.definition
  const navigate = useNavigate()
  const [steps, setSteps, clear] = useDraft<string[]>(`${shift.id}.${procedure}`, [])
  const [error, setError] = useState<unknown>(null)
  const own = m.procedures[procedure]
  const open = own.filter((s) => !steps.includes(s.id)).length
  const done = shift.procedures.filter((q) => q.procedure === procedure).length
  const record = async () => {
    setError(null)
    const body: ProcedureRequest = { id: newId(), procedure, steps }
    try {
      const s = await outbox.send<Shift>('do-procedure', { shift: shift.id }, body)
      putShift(shift.id, s)
      clear()
      setSteps([])
      if (procedure === 'setup') navigate(`/shifts/${shift.id}/${nextStation(s, m)}`)
    } catch (e) {
      setError(e)
    }
  }
  const ratings = (
    <>
      <p className="mb-3">{t`Not proven here: read the plate or table for exactly this tool, height and reach. Calculations can be noted in this shift.`}</p>
      <div className="flex flex-wrap gap-2">
        {m.tables.map((table) => (
          <Link
            key={table}
            className="flex min-h-12 items-center rounded-lg border-2 border-ink px-4 font-semibold"
            to={`/tables/${table}`}
          >{t`Its ratings`}</Link>
        ))}
        <Link
          className="flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold"
          to="/calculators"
        >{t`Calculators`}</Link>
      </div>
    </>
  )
  return (
    <Station
      title={procedure === 'setup' ? t`Set up` : t`Lift`}
      below={procedure === 'setup' ? t`Each step names what must be true before it.` : t`${done} recorded in this shift.`}
      head={<Refused error={error} />}
      drawing={
        <section
          aria-label={t`In this order`}
          className="max-h-[68dvh] overflow-y-auto rounded-xl border border-line bg-sheet p-3.5 roomy:h-full roomy:max-h-none"
        >
          <Steps steps={own} confirmed={steps} onChange={setSteps} />
        </section>
      }
      sheet={
        <section className="grid content-start gap-4 overflow-y-auto rounded-xl border border-line bg-sheet p-3.5 roomy:h-full">
          {procedure === 'lift' && (
            <div>
              <h2 className="mb-2">{t`What it may lift`}</h2>
              {ratings}
            </div>
          )}
          <div>
            <h2 className="mb-2">{t`Cautions`}</h2>
            <ul className="list-disc pl-6">
              {m.cautions.map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
          </div>
        </section>
      }
      why={open > 0 ? plural(open, { one: '# step to confirm.', other: '# steps to confirm.' }) : ''}
      actions={
        <>
          {procedure === 'lift' && (
            <Link
              className="flex min-h-14 items-center rounded-lg border-2 border-ink px-6 font-bold"
              to={`/shifts/${shift.id}/stow`}
            >{t`Stow & hand over`}</Link>
          )}
          <Button look="next" disabled={open > 0} onClick={() => void record()}>
            {procedure === 'setup' ? t`Record this set-up` : t`Record this work`}
          </Button>
        </>
      }
    />
  )
}
