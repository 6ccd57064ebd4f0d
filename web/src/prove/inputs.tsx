import type { Crane, LiftPlan, Place, RatingTable, SlewStep } from '@geolabe/core'
import { lazy, memo, Suspense, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, SelectField, TolField } from '../look/field'
import { useSay } from '../units/units'
import { type ProveDraft, type StepChange, withHung, withStep } from './draft'
import { LoadChoice, waitsAt } from './load-choice'
import { massSources } from './mass-fields'
import { RiggingFields } from './rigging-fields'
import { SizeFields } from './room'
import { withTransferred } from './transferred'

const LoadBuilder = lazy(() => import('../calculators/load-builder').then((m) => ({ default: m.LoadBuilder })))

type SetDraft = (change: (d: ProveDraft) => ProveDraft) => void
/** The load: what it weighs, how that is known, how much wind it catches, and what else hangs on the hook. */
export const LoadPanel = memo(function LoadPanel({
  place,
  hung: { load, rigging },
  windless = false,
  setDraft,
}: {
  place: Place
  hung: LiftPlan['hung']
  /** Under a roof: what it catches of the wind is not asked. */
  windless?: boolean
  setDraft: SetDraft
}) {
  const hung = (to: Partial<LiftPlan['hung']>) => setDraft((d) => ({ ...d, lift: withHung(d.lift, to) }))
  const set = (to: Partial<LiftPlan['hung']['load']>) =>
    setDraft((d) => ({ ...d, lift: withHung(d.lift, { load: { ...d.lift.hung.load, ...to } }) }))
  const [building, setBuilding] = useState(false)
  const ask = load.mass_kg === null ? waitsAt(place, load)?.ask : undefined
  return (
    <div className="grid gap-3">
      <LoadChoice place={place} load={load} onLoad={(l) => hung({ load: l })} />
      <TolField label={t`Mass`} quantity="mass" value={load.mass_kg} least={1} onChange={(mass_kg) => set({ mass_kg })} />
      {ask && <p className="font-semibold">{t`Ask: ${ask}`}</p>}
      <Button className="w-fit" onClick={() => setBuilding(true)}>{t`From its shapes`}</Button>
      {building && (
        <Suspense>
          <LoadBuilder
            onClose={() => setBuilding(false)}
            onTake={(h) => {
              setDraft((d) => withTransferred(d, h))
              setBuilding(false)
            }}
          />
        </Suspense>
      )}
      <SelectField
        label={t`How the mass is known`}
        value={load.massSource ?? ''}
        options={massSources}
        onChange={(s) => set({ massSource: s === '' ? null : s })}
      />
      {!windless && (
        <TolField
          label={t`Sail area, its largest side`}
          quantity="area"
          value={load.windArea_m2}
          least={0}
          onChange={(windArea_m2) => set({ windArea_m2 })}
        />
      )}
      <SizeFields size={load.size} onChange={(size) => set({ size })} />
      <RiggingFields rigging={rigging} legend={t`Also on the hook, beside its block`} onChange={(to) => hung({ rigging: to })} />
    </div>
  )
})

/** Where it is picked up, where it goes, and which way round. */
export const PathPanel = memo(function PathPanel({ step, change }: { step: SlewStep; change: (to: StepChange) => void }) {
  return (
    <div className="grid gap-3">
      <PointFields which="pickUp" name={t`P · Pick up`} at={step.pickUp} change={change} />
      <PointFields which="setDown" name={t`S · Set down`} at={step.setDown} change={change} />
      <Turned direction={step.slewDirection} change={change} />
      <RadiusBasis basis={step.radiusBasis} change={change} />
    </div>
  )
})

/** One point of the path; the other is not drawn anew while this one is moved. */
const PointFields = memo(function PointFields({
  which,
  name,
  at,
  change,
}: {
  which: 'pickUp' | 'setDown'
  name: string
  at: SlewStep['pickUp']
  change: (to: StepChange) => void
}) {
  return (
    <fieldset className="grid grid-cols-[1.7fr_1fr] gap-2">
      <legend className="mb-1 font-bold">{name}</legend>
      <TolField
        label={t`Radius`}
        quantity="length"
        value={at.radius_m}
        least={0.5}
        onChange={(r) => r !== null && change({ [which]: { ...at, radius_m: r } })}
      />
      <NumberField
        label={t`Slew`}
        quantity="angle"
        value={at.slew_deg}
        onChange={(s) => s !== null && change({ [which]: { ...at, slew_deg: s } })}
      />
    </fieldset>
  )
})

// Neither changes while a point is moved.
const Turned = memo(function Turned({
  direction,
  change,
}: {
  direction: SlewStep['slewDirection']
  change: (to: StepChange) => void
}) {
  return (
    <Choice
      label={t`Turned`}
      value={direction}
      onChange={(turn) => change({ slewDirection: turn })}
      options={[
        { value: 'anticlockwise', label: t`Anticlockwise` },
        { value: 'clockwise', label: t`Clockwise` },
      ]}
    />
  )
})

export const RadiusBasis = memo(function RadiusBasis({
  basis,
  change,
}: {
  basis: SlewStep['radiusBasis']
  change: (to: StepChange) => void
}) {
  return (
    <>
      <Choice
        label={t`How the radius is known`}
        value={basis === null ? 'no' : typeof basis === 'string' ? 'measured' : 'bend'}
        onChange={(v) =>
          change({ radiusBasis: v === 'no' ? null : v === 'measured' ? 'measured-under-load' : { deflection_m: 0.2 } })
        }
        options={[
          { value: 'measured', label: t`Measured`, note: t`under load` },
          { value: 'bend', label: t`Worked out`, note: t`with the bend` },
          { value: 'no', label: t`Worked out`, note: t`bend not known` },
        ]}
      />
      {typeof basis === 'object' && basis !== null && (
        <NumberField
          label={t`Outward bend of the boom under load`}
          quantity="length"
          value={basis.deflection_m}
          least={0}
          onChange={(v) => change({ radiusBasis: { deflection_m: v ?? 0 } })}
        />
      )}
    </>
  )
})

/** More lengths than that are no longer side by side: the boom goes to any of them. */
const most_side_by_side = 8

/** Boom, wind, and the table that the machine's own computer is set to. */
export const MachinePanel = memo(function MachinePanel({
  machine,
  boom_m,
  wind_mps,
  configuration,
  setDraft,
  tables,
  counterweight,
}: {
  machine: Crane
  /** Null: the poses say how far it is drawn out. */
  boom_m: number | null
  wind_mps: ProveDraft['wind_mps']
  configuration: string | undefined
  setDraft: SetDraft
  tables: readonly RatingTable[]
  counterweight: string | undefined
}) {
  const say = useSay()
  const fitted = machine.upper.counterweights.find((c) => c.id === counterweight)
  const configurations = tables.flatMap((t) =>
    t.configurations.filter((c) => c.appliesTo.standing?.counterweight_kg === fitted?.mass_kg),
  )
  return (
    <div className="grid gap-3">
      {boom_m !== null && machine.boom.lengths_m.length > most_side_by_side && (
        <NumberField
          label={t`Boom drawn out to`}
          quantity="length"
          value={boom_m}
          least={Math.min(...machine.boom.lengths_m)}
          most={Math.max(...machine.boom.lengths_m)}
          onChange={(v) => v !== null && setDraft((d) => ({ ...d, lift: withStep(d.lift, { boom_m: v }) }))}
        />
      )}
      {boom_m !== null && machine.boom.lengths_m.length <= most_side_by_side && (
        <Choice
          label={t`Boom`}
          value={String(boom_m)}
          onChange={(v) => setDraft((d) => ({ ...d, lift: withStep(d.lift, { boom_m: Number(v) }) }))}
          options={machine.boom.lengths_m.map((l) => ({ value: String(l), label: say('length', l) }))}
        />
      )}
      <TolField
        label={t`Wind, gust at the boom tip`}
        quantity="speed"
        value={wind_mps}
        least={0}
        onChange={(to) => setDraft((d) => ({ ...d, wind_mps: to }))}
        hint={t`Read just before the lift.`}
      />
      <SelectField
        label={t`Computer set to`}
        value={configuration ?? ''}
        onChange={(v) => setDraft((d) => ({ ...d, lift: { ...d.lift, configuration: v === '' ? undefined : v } }))}
        options={[
          { value: '', label: t`The best that covers this set-up` },
          ...configurations.map((c) => ({ value: c.id, label: c.label })),
        ]}
      />
    </div>
  )
})
