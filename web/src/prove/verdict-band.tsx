import type { Assessment } from '@geolabe/core'
import clsx from 'clsx'
import { memo } from 'react'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { verdictWords } from '../language/words'
import { VerdictMark, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'

/** As high before there is an answer as with one: what is under a finger stays there. */
export const bandHeight = 'min-h-[6.25rem] max-sm:min-h-[5.5rem]'

/** The answer, larger than anything else, with the finding that decides it. */
export const VerdictBand = memo(function VerdictBand({
  assessment: a,
  stale = false,
  on = t`On the hook`,
  rated = t`Rated here`,
}: {
  assessment: Assessment
  stale?: boolean
  /** What carries the load, as it is said. */
  on?: string
  /** What the least rating is of, as it is said. */
  rated?: string | undefined
}) {
  const say = useSay()
  const tone = verdictTone[a.verdict]
  const governing = a.governing
  return (
    <section
      aria-label={t`Verdict`}
      aria-busy={stale}
      // Of what was planned before: it fades unless the new one is there at once.
      className={clsx(
        'overflow-hidden rounded-xl border-2 bg-sheet transition-opacity',
        bandHeight,
        tone.border,
        stale && 'opacity-30 delay-500',
      )}
    >
      <div className={clsx('h-2', tone.hatch)} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5">
        <VerdictMark verdict={a.verdict} size={32} />
        <p aria-live="polite" className={clsx('text-[1.5rem] leading-tight font-[800] max-sm:text-[1.3rem]', tone.text)}>
          {verdictWords[a.verdict].long}
        </p>
        <dl className="ml-auto flex gap-5 max-sm:hidden">
          <Big label={on} value={a.hookLoad_kg === null ? 'not known' : say('mass', a.hookLoad_kg)} />
          <Big label={rated} value={a.rated_kg === null ? 'not rated' : say('mass', a.rated_kg)} />
        </dl>
        {governing && <p className="basis-full leading-snug max-sm:text-[0.92rem]">{findingWords(governing, say).what}</p>}
      </div>
    </section>
  )
})

function Big({ label, value }: { label: string; value: string }) {
  return (
    <div className="text-right">
      <dt className="text-[0.85rem] leading-tight text-quiet">{label}</dt>
      <dd className="figure text-[1.4rem] leading-tight font-bold whitespace-nowrap">{value}</dd>
    </div>
  )
}
