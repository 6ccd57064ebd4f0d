import {
  type Finding,
  normalDegrees,
  type OutriggerCrane,
  type Place,
  type SetupAssessment,
  type SetupPlan,
  supportOf,
  tailGap,
} from '@geolabe/core'
import clsx from 'clsx'
import { findingWords } from '../language/finding-words'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { VerdictMark, verdictTone } from '../look/verdict'
import { useSay } from '../units/units'

/**
 * What concerns the whole machine as it stands: no table that covers it, too little weight under the boom, a foot too near an edge,
 * the tail's room, and which outrigger lightens first.
 */
export function Notes({
  machine,
  plan,
  place,
  stands,
}: {
  machine: OutriggerCrane
  plan: SetupPlan
  place: Place
  stands: SetupAssessment | null
}) {
  const say = useSay()
  const tail = tailGap(place, plan.position, machine.upper.tailSwingRadius_m)
  const lightens = stands?.lightens
  return (
    <>
      {tail && (
        <p className="flex items-start gap-2.5 rounded-lg border-2 border-outside bg-sheet px-3 py-1.5 leading-snug">
          <VerdictMark verdict="outside" size={20} />
          <span>
            <strong className="text-outside">
              {tail.gap_m < 0 ? t`The tail would strike.` : t`Crush zone behind the tail.`}
            </strong>{' '}
            {tail.feature.label}:{' '}
            {tail.gap_m < 0
              ? t`${say('length', -tail.gap_m)} too near for a full turn. Stand further off, or never turn the tail that way.`
              : t`only ${say('length', tail.gap_m)} free as the tail passes. Close it off; nobody goes in there.`}
          </span>
        </p>
      )}
      {stands && <Standing findings={stands.findings} />}
      {lightens && (
        <p className="leading-snug">{rich`${<strong className="inline-block first-letter:uppercase">{supportOf(machine, plan.standing).points.find((p) => p.id === lightens.id)?.label}</strong>} lightens first: to ${<strong className="figure">{say('force', lightens.min_N)}</strong>} at slew ${<strong className="figure">{say('angle', normalDegrees(lightens.at_deg))}</strong>}.`}</p>
      )}
    </>
  )
}

/** The level, what its wheels carry and what has to be confirmed have a sheet each. */
const ownSheet = new Set(['level', 'evidence', 'wheel'])

/** What concerns the whole machine and is not in order. An outrigger shows its own load and ground, and the level has a sheet to itself. */
export function Standing({ findings }: { findings: readonly Finding[] }) {
  const say = useSay()
  const whole = findings.filter(
    (f) => (f.subject === null || f.check === 'edge') && !ownSheet.has(f.check) && f.verdict !== 'inside',
  )
  return whole.map((f) => {
    const { title, what, todo } = findingWords(f, say)
    return (
      <p
        key={f.id}
        className={clsx(
          'flex items-start gap-2.5 rounded-lg border-2 bg-sheet px-3 py-1.5 leading-snug',
          verdictTone[f.verdict].border,
        )}
      >
        <VerdictMark verdict={f.verdict} size={20} />
        <span>
          <strong className={clsx('inline-block first-letter:uppercase', verdictTone[f.verdict].text)}>{title}.</strong> {what}{' '}
          {todo}
        </span>
      </p>
    )
  })
}
