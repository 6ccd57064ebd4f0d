import type { Shift } from '@geolabe/contract'
import type { CheckName, Place, Tower } from '@geolabe/core'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { TextField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { MassFields } from '../prove/mass-fields'
import { ProveStation } from '../prove/prove-station'
import { SizeFields } from '../prove/room'
import { useProving } from '../prove/use-proving'
import { roadsHave, WayPieces } from '../truck/way-pieces'
import { useSay } from '../units/units'
import { firstTow, isTow, type TowDraft, towOf, withTow } from './draft'
import { TowView } from './tow-view'

type Tab = 'arm' | 'vehicle' | 'way'

/** On which sheet each check is put right. */
const sheetOf: Partial<Record<CheckName, Tab>> = {
  mass: 'arm',
  structure: 'arm',
  axle: 'arm',
  wheel: 'arm',
  traction: 'vehicle',
  way: 'way',
  travel: 'way',
  floor: 'way',
}

/** No wind is reckoned with while it tows. */
const still = { wind_mps: null }

/** Station: one end of a vehicle lifted behind, and where it is towed. */
export function ProveTow({ machine, setup, ...context }: ShiftContext & { machine: Tower; setup: Shift['setups'][number] }) {
  const { shift, place } = context
  const [draft, setDraft, clear] = useDraft<TowDraft>(`${shift.id}.tow`, () => firstTow(machine, place, shift), isTow)
  const { lift } = draft
  const proving = useProving<Tab>(context, setup, { lift, conditions: still }, sheetOf, 'arm', clear)
  return (
    <ProveStation
      title={t`Prove the tow`}
      on={t`On the arm`}
      drawing={<TowView machine={machine} lift={lift} assessment={proving.assessment} />}
      label={t`What is towed, and where`}
      tabs={[
        { id: 'arm', name: t`Arm`, body: <ArmSheet machine={machine} draft={draft} setDraft={setDraft} /> },
        { id: 'vehicle', name: t`Vehicle`, body: <VehicleSheet draft={draft} setDraft={setDraft} /> },
        { id: 'way', name: t`Way`, body: <RoadSheet place={place} draft={draft} setDraft={setDraft} /> },
      ]}
      next={t`Record this proof, on to the tow`}
      onTake={({ changedCase }) => changedCase && setDraft({ lift: changedCase.lift })}
      proving={proving}
    />
  )
}

interface SheetProps {
  draft: TowDraft
  setDraft: (change: (d: TowDraft) => TowDraft) => void
}

function ArmSheet({ machine, draft, setDraft }: SheetProps & { machine: Tower }) {
  const say = useSay()
  const step = towOf(draft.lift)
  const set = (to: Partial<typeof step>) => setDraft((d) => ({ lift: withTow(d.lift, to) }))
  const { from_m, ratings } = machine.tow.arm
  return (
    <div className="grid gap-3">
      <TolField
        label={t`Lifted behind`}
        quantity="mass"
        value={step.lifted_kg}
        least={0}
        onChange={(lifted_kg) => set({ lifted_kg })}
        hint={t`What the lifted axle weighs, not the whole vehicle.`}
      />
      <TolField
        label={t`Behind the rear axle, measured`}
        quantity="length"
        value={step.overhang_m}
        least={0.1}
        onChange={(overhang_m) => overhang_m !== null && set({ overhang_m })}
      />
      <p className="text-quiet">{t`From ${say('length', from_m)}; ${ratings.map((r) => t`to ${say('length', r.to_m)} it lifts ${say('mass', r.rating_kg)}`).join(', ')}.`}</p>
      <TolField
        label={t`From there to the axle on the road`}
        quantity="length"
        value={step.toAxle_m}
        least={0.1}
        onChange={(toAxle_m) => set({ toAxle_m })}
        hint={t`Asked for where there is a turn.`}
      />
    </div>
  )
}

function VehicleSheet({ draft, setDraft }: SheetProps) {
  const { load } = draft.lift.hung
  const set = (to: Partial<typeof load>) =>
    setDraft((d) => ({ lift: { ...d.lift, hung: { ...d.lift.hung, load: { ...d.lift.hung.load, ...to } } } }))
  return (
    <div className="grid gap-3">
      <TextField label={t`What is towed`} value={load.name} onChange={(name) => set({ name })} />
      <MassFields label={t`Mass of all of it`} hint={t`These brakes hold all of it.`} load={load} onChange={set} />
      <SizeFields size={load.size} onChange={(size) => set({ size })} />
    </div>
  )
}

function RoadSheet({ place, draft, setDraft }: SheetProps & { place: Place }) {
  const step = towOf(draft.lift)
  const set = (to: Partial<typeof step>) => setDraft((d) => ({ lift: withTow(d.lift, to) }))
  return (
    <div className="grid gap-4">
      <WayPieces place={place} way={step.way} kinds={roadsHave} onChange={(way) => set({ way })} />
      <TolField
        label={t`Speed in the turns`}
        quantity="speed"
        value={step.speed_mps}
        least={0}
        onChange={(speed_mps) => set({ speed_mps })}
        hint={t`Empty: what it may turn with is answered.`}
      />
    </div>
  )
}
