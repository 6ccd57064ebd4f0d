import type { Uncertainty } from '@geolabe/core'
import { uncertaintyWords } from '../language/finding-words'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { useSay } from '../units/units'

/** How sure the governing figure is: both ends of its uncertainty against the limit, and which measurement to better first. */
export function UncertaintyPanel({ uncertainty: d }: { uncertainty: Uncertainty }) {
  const say = useSay()
  const most = Math.max(1.15, d.high * 1.08)
  const at = (share: number) => `${((Math.max(0, share) / most) * 100).toFixed(2)}%`
  const first = d.inputs[0]
  const matters = first && first.share > 0.0005
  return (
    <section>
      <h2 className="mb-2">{t`How sure this is`}</h2>
      <div
        className="relative h-12"
        role="img"
        aria-label={t`Between ${say('share', d.low)} and ${say('share', d.high)} of the limit, as given ${say('share', d.nominal)}`}
      >
        <div className="absolute inset-x-0 top-5 h-2 rounded bg-sunk" />
        <div
          className="absolute top-3.5 h-5 rounded border-2 border-ink hatch-near"
          style={{ left: at(d.low), width: at(d.high - d.low) }}
        />
        <div className="absolute top-2 h-8 w-1 bg-ink" style={{ left: at(d.nominal) }} />
        <div className="absolute top-0 h-12 border-l-2 border-dashed border-outside" style={{ left: at(1) }} />
      </div>
      <p className="figure flex justify-between text-[0.95rem]">
        <span>{t`${say('share', d.low)} at best`}</span>
        <span className="font-bold">{t`${say('share', d.nominal)} as given`}</span>
        <span>{t`${say('share', d.high)} at worst`}</span>
      </p>
      <p className="mt-2">
        {matters
          ? rich`Measure ${<strong>{uncertaintyWords(first.id)}</strong>} better first: its ± alone makes ${say('share', first.share)} of the limit.`
          : t`No single ± makes a difference worth a second measurement.`}
      </p>
    </section>
  )
}
