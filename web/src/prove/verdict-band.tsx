import { type Assessment, findingWords, verdictWords } from '@geolabe/core'
import clsx from 'clsx'
import { VerdictMark, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'

/** The answer, larger than anything else, with the finding that decides it. */
export function VerdictBand({ assessment: a }: { assessment: Assessment }) {
  const say = useSay()
  const tone = verdictTone[a.verdict]
  const governing = a.governing
  return (
    <section aria-label="Verdict" className={clsx('overflow-hidden rounded-xl border-2 bg-sheet', tone.border)}>
      <div className={clsx('h-2', tone.hatch)} />
      <div className="grid items-center gap-x-6 gap-y-2 px-4 py-2 sm:grid-cols-[1fr_auto]">
        <div className="flex items-center gap-4 max-sm:gap-3 max-sm:[&>svg]:size-9">
          <VerdictMark verdict={a.verdict} size={40} />
          <div aria-live="polite">
            <p className={clsx('text-[1.9rem] leading-tight font-[800] max-sm:text-[1.35rem]', tone.text)}>
              {verdictWords[a.verdict].long}
            </p>
            {governing && <p className="max-w-[38rem] max-sm:text-[0.92rem]">{findingWords(governing, say).what}</p>}
          </div>
        </div>
        <dl className="flex gap-6 max-sm:hidden">
          <Big label="On the hook" value={a.hookLoad_kg === null ? 'not known' : say('mass', a.hookLoad_kg)} />
          <Big label="Rated here" value={a.rated_kg === null ? 'not rated' : say('mass', a.rated_kg)} />
        </dl>
      </div>
    </section>
  )
}

function Big({ label, value }: { label: string; value: string }) {
  return (
    <div className="text-right">
      <dt className="text-[0.9rem] text-quiet">{label}</dt>
      <dd className="figure text-[1.6rem] leading-tight font-bold whitespace-nowrap">{value}</dd>
    </div>
  )
}
