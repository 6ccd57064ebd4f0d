import { feetOf, type Levelling, levelling, nominal, type OutriggerCrane } from '@geolabe/core'
import clsx from 'clsx'
import { Bubble } from '../instruments/bubble'
import { rich } from '../language/rich'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { NumberField, TolField } from '../look/field'
import { useSay } from '../units/units'
import { type SetupDraft, standsOnWheels } from './draft'

/** Level read both ways; what each jack has to do, in which order, with packing where the stroke runs out. */
export function LevelPanel({
  machine,
  draft,
  limit_deg,
  onChange,
}: {
  machine: OutriggerCrane
  draft: SetupDraft
  limit_deg: number | null
  onChange: (to: Partial<SetupDraft>) => void
}) {
  const say = useSay()
  const [pitch, roll] = [draft.pitch_deg, draft.roll_deg]
  const jacked = !standsOnWheels(machine, draft)
  const feet = feetOf(machine.outriggers, draft.outriggers)
  const jacks = machine.outriggers.map((l) => {
    const d = draft.outriggers.find((x) => x.id === l.id)
    const foot = feet.find((f) => f.id === l.id)
    return { id: l.id, x_m: foot?.x_m ?? 0, y_m: foot?.y_m ?? 0, stroke_m: d?.stroke_m ?? l.stroke.min_m, ...l.stroke }
  })
  let answer: Levelling | null = null
  let wrong: string | null = null
  if (jacked && pitch !== null && roll !== null) {
    try {
      answer = levelling({
        supports: jacks,
        pitch_deg: nominal(pitch),
        roll_deg: nominal(roll),
        strategy: draft.strategy,
        limit_deg: limit_deg ?? undefined,
      })
    } catch (e) {
      wrong = e instanceof Error ? e.message : String(e)
    }
  }
  const tilt = pitch !== null && roll !== null ? Math.hypot(nominal(pitch), nominal(roll)) : null
  const level = tilt !== null && limit_deg !== null && tilt <= limit_deg
  const setStroke = (id: string, stroke_m: number) =>
    onChange({ outriggers: draft.outriggers.map((l) => (l.id === id ? { ...l, stroke_m } : l)) })
  return (
    <div>
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-start gap-4 max-sm:grid-cols-1">
        <Bubble
          pitch_deg={pitch === null ? 0 : nominal(pitch)}
          roll_deg={roll === null ? 0 : nominal(roll)}
          limit_deg={limit_deg ?? 0.5}
          label={tilt === null ? t`Level not read yet` : t`Bubble ${say('angle', tilt)} out of level`}
        />
        <div className="grid gap-2">
          <TolField
            label={t`Along, front high is plus`}
            quantity="angle"
            value={pitch}
            onChange={(pitch_deg) => onChange({ pitch_deg })}
          />
          <TolField
            label={t`Across, left high is plus`}
            quantity="angle"
            value={roll}
            onChange={(roll_deg) => onChange({ roll_deg })}
          />
        </div>
      </div>
      {tilt !== null && (
        <p className={level ? 'mt-3 text-lg font-bold text-inside' : 'mt-3 text-lg font-bold text-near'}>
          {level
            ? t`Level: ${say('angle', tilt)} of ${say('angle', limit_deg ?? 0)} allowed.`
            : t`${say('angle', tilt)} out of level${limit_deg === null ? '' : t`, ${say('angle', limit_deg)} allowed`}. ${jacked ? t`Work the jacks, then read again.` : t`Drive to level ground, then read again.`}`}
        </p>
      )}
      {wrong && <p className="mt-3 font-bold text-outside">{wrong}</p>}
      {answer && !level && <JackList answer={answer} machine={machine} />}
      <div className={clsx('mt-3', !jacked && 'hidden')}>
        <Choice
          label={t`How to level`}
          value={draft.strategy}
          onChange={(strategy) => onChange({ strategy })}
          options={[
            { value: 'raise-only', label: t`Only raise` },
            { value: 'least-movement', label: t`Least movement` },
          ]}
        />
      </div>
      <details className={clsx('mt-3', !jacked && 'hidden')}>
        <summary className="min-h-12 content-center font-semibold">{t`Where the jacks stand now`}</summary>
        <div className="grid grid-cols-2 gap-3">
          {machine.outriggers.map((l) => (
            <NumberField
              key={l.id}
              label={l.label}
              quantity="length"
              value={draft.outriggers.find((d) => d.id === l.id)?.stroke_m ?? null}
              least={l.stroke.min_m}
              most={l.stroke.max_m}
              onChange={(v) => v !== null && setStroke(l.id, v)}
            />
          ))}
        </div>
      </details>
    </div>
  )
}

function JackList({ answer, machine }: { answer: Levelling; machine: OutriggerCrane }) {
  const say = useSay()
  const labels = new Map(machine.outriggers.map((l) => [l.id, l.label]))
  return (
    <div className="mt-2">
      {!answer.feasible && <p className="font-bold text-outside">{t`A jack cannot come down that far. Choose “only raise”.`}</p>}
      <ol className="grid gap-1.5">
        {answer.order.map((id, i) => {
          const j = answer.jacks.find((x) => x.id === id)
          if (!j) return null
          return (
            <li
              key={id}
              className={clsx(
                'grid grid-cols-[2rem_1fr_auto] items-baseline gap-2 border-t border-line py-1.5 first:border-t-0',
                // The jack to work next is the largest figure here.
                i === 0 && 'text-[1.45rem] leading-tight font-bold',
              )}
            >
              <span className="figure font-bold">{i + 1}</span>
              <span className="first-letter:uppercase">{labels.get(id)}</span>
              <span className="text-right">
                <strong className="figure">
                  {j.change_m >= 0 ? t`up` : t`down`} {say('length', Math.abs(j.change_m))}
                </strong>
                {j.packing_m > 0 && (
                  <span className="block font-bold text-near">{rich`and pack ${<span className="figure">{say('length', j.packing_m)}</span>}`}</span>
                )}
              </span>
            </li>
          )
        })}
      </ol>
      {answer.rounds > 1 && (
        <p className="mt-1 text-quiet">{t`In ${answer.rounds} equal rounds, so that it never leans further on the way.`}</p>
      )}
    </div>
  )
}
