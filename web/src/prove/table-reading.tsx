import type { Assessment } from '@geolabe/core'
import { memo } from 'react'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { useSay } from '../units/units'

/** The table as a finger would read it: both ends, the worst between, and the cells it came from. */
export const TableReading = memo(function TableReading({ assessment: a }: { assessment: Assessment | null }) {
  const say = useSay()
  if (!a?.configuration || !a.ratedAt) return <p>{t`No table covers this lift; the findings say why.`}</p>
  const kg = (v: number | null) => (v === null ? t`not rated` : say('mass', v))
  const ends: [string, string][] = [
    [t`At P, pick-up`, kg(a.ratedAt.pick_kg)],
    [t`At S, set-down`, kg(a.ratedAt.set_kg)],
    [t`Worst on the path`, kg(a.rated_kg)],
  ]
  return (
    <section aria-labelledby="reading">
      <h2 id="reading" className="mb-1">{t`Read from the table`}</h2>
      <p className="text-quiet">{rich`${a.configuration.table}, revision ${a.configuration.revision}: ${<strong className="text-ink">{a.configuration.label}</strong>}. Set the machine’s own computer to this.`}</p>
      <dl className="mt-3 grid gap-3">
        {ends.map(([label, value]) => (
          <div key={label}>
            <dt className="text-[0.9rem] text-quiet">{label}</dt>
            <dd className="figure text-xl font-bold">{value}</dd>
          </div>
        ))}
      </dl>
      {a.readFrom.length > 0 && (
        <p className="mt-3 text-[0.92rem] text-quiet">{t`Cells read: ${a.readFrom
          .map((c) => t`boom ${say('length', Number(c.column))}, radius ${say('length', Number(c.row))}: ${kg(c.rating_kg)}`)
          .join(' · ')}`}</p>
      )}
    </section>
  )
})
