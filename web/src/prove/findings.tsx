import { type Assessment, type Finding, findingWords, notCheckedWords, type Verdict } from '@geolabe/core'
import clsx from 'clsx'
import { ChevronDown } from 'lucide-react'
import { Accordion } from 'radix-ui'
import { memo } from 'react'
import { UseBar, VerdictMark, VerdictWord, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'

const gravity: Record<Verdict, number> = { outside: 0, 'not-proven': 1, near: 2, inside: 3 }

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
  return (
    <div className="overflow-hidden rounded-xl border border-line bg-sheet">
      <section aria-label="What was checked">
        <Accordion.Root type="single" collapsible value={open} onValueChange={onOpen}>
          {worstFirst(assessment.findings).map((f) => (
            <Line key={f.id} finding={f} />
          ))}
        </Accordion.Root>
      </section>
      {assessment.notChecked.length > 0 && (
        <details className="border-t border-dashed border-edge">
          <summary className="min-h-12 content-center px-3 font-semibold">
            What was not checked: {assessment.notChecked.length}
          </summary>
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

function Line({ finding: f }: { finding: Finding }) {
  const say = useSay()
  const w = findingWords(f, say)
  return (
    <Accordion.Item value={f.id} className="border-t border-line first:border-t-0">
      <Accordion.Header asChild>
        <h2 className="text-[1rem] font-normal">
          <Accordion.Trigger className="group/line flex min-h-12 w-full items-center gap-2 px-3 py-1 text-left data-[state=open]:bg-sunk">
            <VerdictMark verdict={f.verdict} size={18} />
            <span className="min-w-0 grow leading-tight first-letter:uppercase">{w.title}</span>
            {f.utilisation !== null && (
              <span className={clsx('figure text-[0.95rem]', verdictTone[f.verdict].text)}>
                {f.utilisation > 9.99 ? 'over' : say('share', f.utilisation)}
              </span>
            )}
            <ChevronDown size={18} aria-hidden="true" className="shrink-0 group-data-[state=open]/line:rotate-180" />
          </Accordion.Trigger>
        </h2>
      </Accordion.Header>
      <Accordion.Content className="grid gap-1.5 px-3 pb-3">
        <VerdictWord verdict={f.verdict} />
        {f.utilisation !== null && <UseBar verdict={f.verdict} share={f.utilisation} />}
        <p>{w.what}</p>
        <p className="text-[0.9rem] text-quiet">{w.rule}</p>
        {w.todo && <p className="font-semibold">{w.todo}</p>}
      </Accordion.Content>
    </Accordion.Item>
  )
}
