import type { Assessment, Finding, Verdict } from '@geolabe/core'
import clsx from 'clsx'
import { ChevronDown } from 'lucide-react'
import { memo, useState } from 'react'
import { findingWords, notCheckedWords } from '../language/finding-words'
import { t } from '../language/t'
import { verdictWords } from '../language/words'
import { UseBar, VerdictMark, VerdictWord, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'

const gravity: Record<Verdict, number> = { outside: 0, 'not-proven': 1, near: 2, inside: 3 }

/** So many lines are shown also where all is inside. */
const atLeast = 3

/** Worst first; of the same verdict, by how much of its limit is used. */
const worstFirst = (findings: readonly Finding[]) =>
  [...findings].sort((a, b) => gravity[a.verdict] - gravity[b.verdict] || (b.utilisation ?? 0) - (a.utilisation ?? 0))

/**
 * Every finding as one line, worst first; touched, it opens and shows its place on the drawing. Below them what nobody checked.
 */
export const Findings = memo(function Findings({
  assessment,
  open,
  onOpen,
}: {
  assessment: Pick<Assessment, 'findings' | 'notChecked'>
  /** The finding that is open, by its id; empty: none. */
  open: string
  onOpen: (id: string) => void
}) {
  const say = useSay()
  const all = worstFirst(assessment.findings)
  // What is inside and not among the fullest needs no reading; it is there to be looked up.
  const looked = all.filter((f, i) => f.verdict !== 'inside' || i < atLeast)
  const folded = all.slice(looked.length)
  // What nobody has opened is not drawn anew at every move of a finger.
  const [unfolded, setUnfolded] = useState(false)
  const there = unfolded || folded.some((f) => f.id === open)
  const line = (f: Finding) => (
    <div key={f.id} className="border-t border-line first:border-t-0">
      <Line
        id={f.id}
        verdict={f.verdict}
        title={findingWords(f, say).title}
        used={f.utilisation === null ? '' : f.utilisation > 9.99 ? 'over' : say('share', f.utilisation)}
        open={f.id === open}
        onOpen={onOpen}
      />
      {f.id === open && <Opened finding={f} />}
    </div>
  )
  return (
    <div className="overflow-hidden rounded-xl border border-line bg-sheet">
      <section aria-label={t`What was checked`}>
        {looked.map(line)}
        {folded.length > 0 && (
          <details className="border-t border-line" open={there || undefined} onToggle={(e) => setUnfolded(e.currentTarget.open)}>
            <summary className="min-h-12 content-center px-3 font-semibold">{t`${folded.length} more inside`}</summary>
            {there && folded.map(line)}
          </details>
        )}
      </section>
      {assessment.notChecked.length > 0 && (
        <details className="border-t border-dashed border-edge">
          <summary className="min-h-12 content-center px-3 font-semibold">{t`What was not checked: ${assessment.notChecked.length}`}</summary>
          <ul className="px-3 pb-3">
            {assessment.notChecked.map((n) => (
              <li key={n} className="border-t border-line py-1.5 first:border-t-0">
                {notCheckedWords[n]}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  )
})

const chevron = <ChevronDown size={18} aria-hidden="true" />

/** Made of plain words, so that a line is drawn anew only where one of them changes. */
const Line = memo(function Line({
  id,
  verdict,
  title,
  used,
  open,
  onOpen,
}: {
  id: string
  verdict: Verdict
  title: string
  used: string
  open: boolean
  onOpen: (id: string) => void
}) {
  return (
    <h2 className="text-[1rem] font-normal">
      <button
        type="button"
        aria-expanded={open}
        aria-controls={open ? `finding-${id}` : undefined}
        onClick={() => onOpen(open ? '' : id)}
        className={clsx('flex min-h-12 w-full items-center gap-2 px-3 py-1 text-left', open && 'bg-sunk')}
      >
        <VerdictMark verdict={verdict} size={18} />
        <span className="sr-only">{verdictWords[verdict].short}:</span>
        <span className="min-w-0 grow leading-tight first-letter:uppercase">{title}</span>
        <span className={clsx('figure text-[0.95rem] whitespace-nowrap', verdictTone[verdict].text)}>{used}</span>
        <span className={clsx('shrink-0', open && 'rotate-180')}>{chevron}</span>
      </button>
    </h2>
  )
})

function Opened({ finding: f }: { finding: Finding }) {
  const say = useSay()
  const w = findingWords(f, say)
  return (
    <div id={`finding-${f.id}`} className="grid gap-1.5 px-3 pt-1 pb-3">
      <VerdictWord verdict={f.verdict} />
      {f.utilisation !== null && <UseBar verdict={f.verdict} share={f.utilisation} />}
      <p>{w.what}</p>
      <p className="text-[0.9rem] text-quiet">{w.rule}</p>
      {w.todo && <p className="font-semibold">{w.todo}</p>}
    </div>
  )
}
