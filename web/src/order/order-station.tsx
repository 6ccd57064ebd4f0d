import { Link, useNavigate } from 'react-router'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Station } from '../look/station'
import { useShiftContext } from './context'
import { OrderSteps, openSteps } from './steps'
import { useOrder } from './use-order'

/** A station of a machine that is not proved on the dial: its order of work, and where its ratings stand. */
export function OrderStationPage({ station }: { station: 'setup' | 'lift' }) {
  const { shift, file } = useShiftContext()
  const m = file.definition
  const navigate = useNavigate()
  const order = useOrder()
  const open = openSteps(order, station)
  return (
    <Station
      title={station === 'setup' ? t`Set up` : t`Lift`}
      below={t`Each step names what must be true before it.`}
      drawing={
        <section
          aria-label={t`In this order`}
          className="max-h-[68dvh] overflow-y-auto rounded-xl border border-line bg-sheet p-3.5 roomy:h-full roomy:max-h-none"
        >
          <OrderSteps order={order} station={station} />
        </section>
      }
      sheet={
        <section className="grid content-start gap-4 overflow-y-auto rounded-xl border border-line bg-sheet p-3.5 roomy:h-full">
          {station === 'lift' && (
            <div>
              <h2 className="mb-2">{t`What it may lift`}</h2>
              <p className="mb-3">{t`This machine’s file has no geometry to prove with: read the plate or table for exactly this tool, height and reach.`}</p>
              <div className="flex flex-wrap gap-2">
                {m.tables.map((table) => (
                  <Link
                    key={table}
                    className="flex min-h-12 items-center rounded-lg border-2 border-ink px-4 font-semibold"
                    to={`/tables/${table}`}
                  >{t`Its ratings`}</Link>
                ))}
              </div>
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
        <Button
          look="next"
          disabled={open > 0}
          onClick={() => void navigate(`/shifts/${shift.id}/${station === 'setup' ? 'lift' : 'stow'}`)}
        >
          {station === 'setup' ? t`On to the lift` : t`Stow & hand over`}
        </Button>
      }
    />
  )
}
