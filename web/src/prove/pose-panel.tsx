import type { ArticulatedPose, Crane, PoseStep } from '@geolabe/core'
import { memo } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, SelectField } from '../look/field'
import { useSay } from '../units/units'
import type { StepChange } from './draft'
import { RadiusBasis } from './inputs'

/** The poses of a folding boom one after another, and how it goes from each to the next. */
export const PosePanel = memo(function PosePanel({
  machine,
  step,
  change,
}: {
  machine: Crane
  step: PoseStep
  change: (to: StepChange) => void
}) {
  const say = useSay()
  const { waypoints } = step
  const folding = machine.boom.articulated
  const stages = Array.from(
    { length: (folding?.stages ?? 0) + 1 },
    (_, k) => Math.round(k * (folding?.stage_m ?? 0) * 1000) / 1000,
  )
  const set = (i: number, to: Partial<ArticulatedPose>) =>
    change({ waypoints: waypoints.map((p, k) => (k === i ? { ...p, ...to } : p)) })
  const name = (i: number) => (i === 0 ? t`P · Pick up` : i === waypoints.length - 1 ? t`S · Set down` : t`${i} · On the way`)
  const add = () => {
    const [last, before] = [waypoints.at(-1), waypoints.at(-2)]
    if (last && before) change({ waypoints: [...waypoints.slice(0, -1), { ...before, slew_deg: last.slew_deg }, last] })
  }
  return (
    <div className="grid gap-3">
      {waypoints.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a pose is known by its place on the way
        <fieldset key={i} className="grid grid-cols-2 gap-2">
          <legend className="mb-1 flex w-full items-center justify-between font-bold">
            {name(i)}
            {i > 0 && i < waypoints.length - 1 && (
              <Button
                aria-label={t`Take out pose ${i}`}
                onClick={() => change({ waypoints: waypoints.filter((_, k) => k !== i) })}
              >{t`Take out`}</Button>
            )}
          </legend>
          <NumberField
            label={t`Inner boom`}
            quantity="angle"
            value={p.inner_deg}
            onChange={(v) => v !== null && set(i, { inner_deg: v })}
          />
          <NumberField
            label={t`Outer, folded by`}
            quantity="angle"
            value={p.fold_deg}
            onChange={(v) => v !== null && set(i, { fold_deg: v })}
          />
          <SelectField
            label={t`Drawn out`}
            value={String(p.extension_m)}
            options={stages.map((m) => ({ value: String(m), label: say('length', m) }))}
            onChange={(v) => set(i, { extension_m: Number(v) })}
          />
          <NumberField
            label={t`Slew`}
            quantity="angle"
            value={p.slew_deg}
            onChange={(v) => v !== null && set(i, { slew_deg: v })}
          />
        </fieldset>
      ))}
      <Button className="w-fit" onClick={add}>{t`Add a pose on the way`}</Button>
      <Choice
        label={t`Between two poses`}
        value={step.mode}
        onChange={(mode) => change({ mode })}
        options={[
          { value: 'together', label: t`All together` },
          { value: 'one-after-another', label: t`One by one`, note: t`inner, outer, stages, slew` },
        ]}
      />
      <RadiusBasis basis={step.radiusBasis} change={change} />
    </div>
  )
})
