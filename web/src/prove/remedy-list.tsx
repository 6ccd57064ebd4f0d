import { type Assessment, doNotLift, type Remedy } from '@geolabe/core'
import { memo } from 'react'
import { changeWords, findingWords } from '../language/finding-words'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { VerdictWord } from '../look/verdict'
import { useSay } from '../units/units'
import type { Advice } from './advisor.worker'

const settles = (c: Remedy) => c.assessment?.verdict === 'inside' || c.assessment?.verdict === 'near'

/** Changes that settle everything at once, the surest first; one found for several findings stands once. */
function settlingAll(advice: Advice): Remedy[] {
  const found = new Map(advice.changes.flatMap((x) => x.changes.filter(settles)).map((c) => [JSON.stringify(c.change), c]))
  return [...found.values()].sort(
    (a, b) => Number(b.assessment?.verdict === 'inside') - Number(a.assessment?.verdict === 'inside'),
  )
}

/** For each miss the nearest changes that put it right, each already assessed; and what is missing for a proof. */
export const ChangeList = memo(function ChangeList({
  assessment,
  advice,
  current,
  onTake,
  onOpen,
}: {
  assessment: Assessment
  advice: Advice | null
  current: boolean
  onTake: (c: Remedy) => void
  /** Shows where what is missing is entered. */
  onOpen: (finding: string) => void
}) {
  const say = useSay()
  const outside = assessment.findings.filter((f) => f.verdict === 'outside')
  const missing = assessment.findings.filter((f) => f.verdict === 'not-proven')
  if (outside.length === 0 && missing.length === 0) return null
  const all = advice && current ? settlingAll(advice) : []
  return (
    <section className="mb-2 rounded-xl border-2 border-edge bg-sheet px-3 py-2">
      <h2 className="mb-1">{outside.length > 0 ? t`What would bring it inside` : t`What is missing`}</h2>
      {outside.length > 0 && !(advice && current) && (
        <p className="text-quiet" role="status">{t`Looking for the nearest change…`}</p>
      )}
      {all.length > 0 && <Offers changes={all} onTake={onTake} />}
      {advice &&
        current &&
        outside.map((f) => {
          const { title, todo } = findingWords(f, say)
          // What only people can do about it stands in its own words.
          const byHand = todo === '' || todo === told(doNotLift) ? null : todo
          const offered = (advice.changes.find((x) => x.finding === f.id)?.changes ?? []).filter((c) => !settles(c))
          if (offered.length === 0 && all.length > 0) return null
          return (
            <section key={f.id} className="mt-3 border-t border-line pt-3" aria-label={t`Changes for ${title}`}>
              <h3>
                <span className="inline-block first-letter:uppercase">{title}</span>{' '}
                <span className="font-normal text-quiet">{all.length > 0 ? t`by itself` : t`first`}</span>
              </h3>
              {offered.length === 0 ? (
                <p>{byHand ?? t`No single change puts it right here. Plan the lift anew: another stand, another machine.`}</p>
              ) : (
                <Offers changes={offered} onTake={onTake} />
              )}
            </section>
          )
        })}
      {missing.map((f) => {
        const w = findingWords(f, say)
        return (
          <button
            key={f.id}
            type="button"
            onClick={() => onOpen(f.id)}
            className="block min-h-12 w-full border-t border-line py-1.5 text-left leading-snug first-of-type:border-t-0"
          >
            <strong className="text-unproven">{w.title}.</strong>{' '}
            <span className="underline underline-offset-4">{w.todo || w.what}</span>
          </button>
        )
      })}
    </section>
  )
})

function Offers({ changes, onTake }: { changes: readonly Remedy[]; onTake: (c: Remedy) => void }) {
  const say = useSay()
  return (
    <ul className="grid gap-1.5">
      {changes.map((o) => {
        const words = changeWords(o.change, say)
        return (
          <li key={JSON.stringify(o.change)} className="grid grid-cols-[1fr_auto] items-center gap-3">
            <span>
              {words}
              {o.assessment && (
                <span className="flex items-center gap-1.5 text-[0.92rem]">
                  {t`then`} <VerdictWord verdict={o.assessment.verdict} />
                </span>
              )}
            </span>
            {o.changedCase && <Button onClick={() => onTake(o)} aria-label={t`Take this change: ${words}`}>{t`Take`}</Button>}
          </li>
        )
      })}
    </ul>
  )
}
