import type { LiftPlan, Place } from '@geolabe/core'
import { t } from '../language/t'
import { TolField } from '../look/field'
import { withHung } from './draft'
import { LoadFields } from './load-choice'
import type { OutdoorDraft, SetOutdoor } from './outdoor-draft'
import { RiggingFields } from './rigging-fields'
import { SizeFields } from './room'

type Load = LiftPlan['hung']['load']
type Cg = NonNullable<Load['cg']>

/** A load that several points share: what it weighs, and where its centre of gravity is between them. */
export function SharedLoadSheet({
  place,
  draft,
  setDraft,
  what,
}: {
  place: Place
  draft: OutdoorDraft
  setDraft: SetOutdoor
  what: string
}) {
  const { load, rigging } = draft.lift.hung
  const set = (to: Partial<Load>) => setDraft((d) => ({ ...d, lift: withHung(d.lift, { load: { ...d.lift.hung.load, ...to } }) }))
  return (
    <div className="grid gap-3">
      <LoadFields
        place={place}
        load={load}
        label={what}
        onLoad={(l) => setDraft((d) => ({ ...d, lift: withHung(d.lift, { load: l }) }))}
      />
      <CentreFields cg={load.cg} onChange={(cg) => set({ cg })} />
      <SizeFields size={load.size} onChange={(size) => set({ size })} />
      <RiggingFields rigging={rigging} onChange={(to) => setDraft((d) => ({ ...d, lift: withHung(d.lift, { rigging: to }) }))} />
    </div>
  )
}

const level: Cg = { x_m: 0, y_m: 0, z_m: 0 }

/** Where a load's centre of gravity is, from the middle of what carries it. */
function CentreFields({ cg, onChange }: { cg: Load['cg']; onChange: (to: Cg) => void }) {
  const set = (to: Partial<Cg>) => onChange({ ...level, ...cg, ...to })
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">{t`Its centre of gravity`}</legend>
      <TolField
        label={t`Ahead of the middle`}
        quantity="length"
        value={cg?.x_m ?? null}
        onChange={(x_m) => x_m !== null && set({ x_m })}
        hint={t`Behind it: minus.`}
      />
      <TolField
        label={t`Left of the middle`}
        quantity="length"
        value={cg?.y_m ?? null}
        onChange={(y_m) => y_m !== null && set({ y_m })}
        hint={t`Right of it: minus.`}
      />
      <TolField
        label={t`Above its lift points`}
        quantity="length"
        value={cg?.z_m ?? null}
        onChange={(z_m) => z_m !== null && set({ z_m })}
        hint={t`Hung below them: minus.`}
      />
    </fieldset>
  )
}
