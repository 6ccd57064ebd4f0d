import { type Finding, findingWords } from '@geolabe/core'
import { Sheet } from '../look/page'
import { VerdictWord } from '../look/verdict'
import { useSay } from '../units/units'

/** What concerns the whole machine as it stands and is not in order: no table that covers it, too little weight under the boom, a foot
 * too near an edge. */
export function Standing({ findings }: { findings: readonly Finding[] }) {
  const say = useSay()
  // An outrigger shows its own load and ground, and the level has a panel to itself.
  const whole = findings.filter(
    (f) => (f.subject === null || f.check === 'edge') && f.check !== 'level' && f.verdict !== 'inside',
  )
  return whole.map((f) => {
    const { title, what, todo } = findingWords(f, say)
    return (
      <Sheet key={f.id} title={title}>
        <VerdictWord verdict={f.verdict} />
        <p className="mt-1">
          {what} {todo}
        </p>
      </Sheet>
    )
  })
}
