import { type Case, type SupportOption, supportChoice } from '@geolabe/core'
import clsx from 'clsx'
import { useMemo } from 'react'
import { t } from '../language/t'
import { useSay } from '../units/units'

const verdictOf = ({ use }: SupportOption) => (use === null || use > 1 ? 'outside' : use >= 0.9 ? 'near' : 'inside')
const tones = { inside: 'bg-inside', near: 'bg-near', outside: 'bg-outside' } as const

/** Which way of standing this lift needs: each as a bar of what its table rates here, the least that takes it outlined. */
export function SupportBars({ of }: { of: Case | null }) {
  const say = useSay()
  const options = useMemo(() => (of ? supportChoice(of, { mats: of.place.mats, canStand: () => true }) : []), [of])
  // With only one there is nothing to choose.
  if (options.length < 2) return null
  const least = options.find((o) => o.least)
  return (
    <section aria-label={t`Which way of standing it needs`}>
      <h2 className="mb-1">
        {least ? t`It needs: ${least.label.charAt(0).toLowerCase()}${least.label.slice(1)}` : t`No way of standing takes it`}
      </h2>
      <ol className="grid gap-2">
        {options.map((o) => (
          <li key={o.id} className={clsx('rounded-lg border-2 p-2', o.least ? 'border-ink' : 'border-transparent')}>
            <span className="flex items-baseline justify-between gap-2">
              <span className="font-semibold">
                {o.label}
                {o.now && <span className="font-normal text-quiet"> {t`· as it stands`}</span>}
              </span>
              <span className="figure whitespace-nowrap">
                {o.use === null || o.rated_kg === null ? t`not rated` : t`${say('share', o.use)} of ${say('mass', o.rated_kg)}`}
              </span>
            </span>
            <span className="mt-1 block h-3 overflow-hidden rounded-full bg-sunk" aria-hidden="true">
              {o.use !== null && (
                <span
                  className={clsx('block h-full', tones[verdictOf(o)])}
                  style={{ width: `${Math.min(100, (o.use / 1.25) * 100)}%` }}
                />
              )}
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-[0.92rem] text-quiet">{t`By its tables alone. Ground, level and what has to be confirmed are looked at once it stands so.`}</p>
    </section>
  )
}
