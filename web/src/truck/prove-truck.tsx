import type { Shift } from '@geolabe/contract'
import {
  type CheckName,
  type DriveStep,
  type Finding,
  fittedOf,
  type LiftPlan,
  most_pieces,
  type Place,
  type TruckMachine,
} from '@geolabe/core'
import { useMemo } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { ClosedAreas } from '../prove/closed-areas'
import { LoadFields } from '../prove/load-choice'
import type { OutdoorDraft } from '../prove/outdoor-draft'
import { ProveStation } from '../prove/prove-station'
import { SizeFields } from '../prove/room'
import { useProving } from '../prove/use-proving'
import { WindSheet } from '../prove/wind-sheet'
import { drawn, driveOf, firstMove, firstWay, isMove, mastOf, withMove } from './draft'
import { ReachSheet } from './reach-sheet'
import { ReachView } from './reach-view'
import { RouteMap } from './route-map'
import { TruckView } from './truck-view'
import { trucksMeet, WayPieces } from './way-pieces'

type Tab = 'load' | 'stack' | 'way' | 'wind'
const sheetOf: Partial<Record<CheckName, Tab>> = {
  mass: 'load',
  rating: 'load',
  aloft: 'load',
  grip: 'load',
  guard: 'load',
  axle: 'load',
  overturning: 'stack',
  way: 'way',
  travel: 'way',
  traction: 'way',
  floor: 'way',
  people: 'way',
  wind: 'wind',
}

/** Station: one load of a truck, stacked and driven, proven before it leaves the ground. */
export function ProveTruck({
  machine,
  setup,
  ...context
}: ShiftContext & { machine: TruckMachine; setup: Shift['setups'][number] }) {
  const { shift, place, file } = context
  const [draft, setDraft, clear] = useDraft<OutdoorDraft>(`${shift.id}.prove`, () => firstMove(machine, place, shift), isMove)
  const { lift, wind_mps, roofShut } = draft
  const conditions = useMemo(() => ({ wind_mps, roofShut }), [wind_mps, roofShut])
  const proving = useProving<Tab>(context, setup, { lift, conditions }, sheetOf, 'load', clear)
  const route = (to: [number, number][]) =>
    setDraft((d) => ({ ...d, lift: withMove(d.lift, { drive: drawn(d.lift, place, to) }) }))
  return (
    <ProveStation
      title={t`Prove the load`}
      on={t`On the forks`}
      drawing={
        proving.tab === 'way' ? (
          <RouteMap place={place} drive={driveOf(lift)} assessment={proving.assessment} onRoute={route} />
        ) : machine.truck.reach ? (
          <ReachView machine={machine} lift={lift} setup={setup.plan} tables={file.tables} assessment={proving.assessment} />
        ) : (
          <TruckView
            machine={machine}
            lift={lift}
            fitted={fittedOf(machine.truck, { setup: setup.plan, lift })}
            assessment={proving.assessment}
          />
        )
      }
      label={t`What is moved, and how`}
      tabs={[
        { id: 'load', name: t`Load`, body: <LoadSheet machine={machine} place={place} draft={draft} setDraft={setDraft} /> },
        {
          id: 'stack',
          name: machine.truck.reach ? t`Place` : t`Stack`,
          body: machine.truck.reach ? (
            <ReachSheet machine={machine} draft={draft} setDraft={setDraft} />
          ) : (
            <StackSheet draft={draft} setDraft={setDraft} />
          ),
        },
        {
          id: 'way',
          name: t`Way`,
          body: <WaySheet place={place} draft={draft} setDraft={setDraft} findings={proving.assessment?.findings ?? []} />,
        },
        { id: 'wind', name: t`Wind`, body: <WindSheet draft={draft} setDraft={setDraft} /> },
      ]}
      next={t`Record this proof, on to the load`}
      onTake={({ changedCase: to }) => to && setDraft((d) => ({ ...d, lift: to.lift, wind_mps: to.conditions.wind_mps }))}
      proving={proving}
    />
  )
}

interface SheetProps {
  draft: OutdoorDraft
  setDraft: (change: (d: OutdoorDraft) => OutdoorDraft) => void
}

function LoadSheet({ machine, place, draft, setDraft }: SheetProps & { machine: TruckMachine; place: Place }) {
  const { operator, grip } = machine.truck.chassis
  const hung = (to: Partial<typeof draft.lift.hung>) =>
    setDraft((d) => ({ ...d, lift: { ...d.lift, hung: { ...d.lift.hung, ...to } } }))
  const { load } = draft.lift.hung
  const set = (to: Partial<typeof load>) =>
    setDraft((d) => ({ ...d, lift: { ...d.lift, hung: { ...d.lift.hung, load: { ...d.lift.hung.load, ...to } } } }))
  const cg = load.cg ?? null
  const at = (to: Partial<NonNullable<typeof load.cg>>) => set({ cg: { x_m: 0.6, y_m: 0, z_m: 0.5, ...cg, ...to } })
  return (
    <div className="grid gap-3">
      <LoadFields place={place} load={load} label={t`What is moved`} onLoad={(l) => hung({ load: l })} />
      <TolField
        label={
          machine.truck.boom && !machine.truck.reach
            ? t`Reach, to the middle of the load`
            : t`Load centre, from the face of the forks`
        }
        quantity="length"
        value={cg?.x_m ?? null}
        least={0.05}
        onChange={(x_m) => x_m !== null && at({ x_m })}
        hint={
          machine.truck.boom && !machine.truck.reach
            ? t`From the front of the carrier.`
            : t`To its centre of gravity, not half its length by habit.`
        }
      />
      <TolField
        label={t`Centre above the forks`}
        quantity="length"
        value={cg?.z_m ?? null}
        least={0}
        onChange={(z_m) => z_m !== null && at({ z_m })}
      />
      {operator && (
        <TolField
          label={t`Who rides up, with what they wear`}
          quantity="mass"
          value={draft.lift.hung.persons?.[0]?.mass_kg ?? null}
          least={1}
          onChange={(mass_kg) => hung({ persons: mass_kg === null ? [] : [{ mass_kg }] })}
        />
      )}
      {grip && (
        <Choice
          label={t`Faces that it is held by`}
          value={draft.lift.hung.faces ?? null}
          options={[
            { value: 'dry', label: t`Dry` },
            { value: 'wet', label: t`Wet` },
          ]}
          onChange={(faces) => hung({ faces })}
        />
      )}
      {machine.truck.chassis.guardAbove_m !== undefined && (
        <Tiers tiers_m={load.tiers_m} onChange={(tiers_m) => set({ tiers_m })} />
      )}
      <SizeFields size={load.size} onChange={(size) => set({ size })} />
    </div>
  )
}

type Tiered = LiftPlan['hung']['load']['tiers_m']

/** Loose tiers lean on the load guard; what is wrapped, or one piece, has none. */
function Tiers({ tiers_m, onChange }: { tiers_m: Tiered; onChange: (to: Tiered) => void }) {
  const tiers = tiers_m ?? []
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-semibold">{t`Loose tiers, from below; none where it is wrapped`}</legend>
      {tiers.map((height, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: they stand in this order
        <div key={i} className="grid grid-cols-[1fr_auto] items-end gap-2">
          <TolField
            label={t`Tier ${i + 1}, its height`}
            quantity="length"
            value={height}
            least={0.01}
            onChange={(h) => h !== null && onChange(tiers.map((o, k) => (k === i ? h : o)))}
          />
          <Button
            aria-label={t`Take tier ${i + 1} off`}
            onClick={() => onChange(tiers.length > 1 ? tiers.filter((_, k) => k !== i) : undefined)}
          >{t`Off`}</Button>
        </div>
      ))}
      {tiers.length < 20 && (
        <Button className="w-fit" onClick={() => onChange([...tiers, tiers.at(-1) ?? 0.3])}>{t`Add a tier`}</Button>
      )}
    </fieldset>
  )
}

function StackSheet({ draft, setDraft }: SheetProps) {
  const mast = mastOf(draft.lift)
  const [pose] = [mast.waypoints.at(-1) ?? { height_m: 0, tilt_deg: 0, sideShift_m: 0 }]
  const set = (to: Partial<typeof pose>) =>
    setDraft((d) => ({ ...d, lift: withMove(d.lift, { raised: { ...mast, waypoints: [{ ...pose, ...to }] } }) }))
  return (
    <div className="grid gap-3">
      <NumberField
        label={t`Stacked at, top of the forks`}
        quantity="length"
        value={pose.height_m}
        least={0}
        onChange={(v) => v !== null && set({ height_m: v })}
      />
      <Choice
        label={t`Mast over the stack`}
        value={pose.tilt_deg > 0 ? 'forward' : 'upright'}
        options={[
          { value: 'upright', label: t`Upright` },
          { value: 'forward', label: t`Tilted forward` },
        ]}
        onChange={(v) => set({ tilt_deg: v === 'forward' ? 3 : 0 })}
      />
      <NumberField
        label={t`Carriage shifted, left is plus`}
        quantity="length"
        value={pose.sideShift_m}
        onChange={(v) => v !== null && set({ sideShift_m: v })}
      />
    </div>
  )
}

function WaySheet({ place, draft, setDraft, findings }: SheetProps & { place: Place; findings: readonly Finding[] }) {
  const drive = driveOf(draft.lift)
  const set = (to: Partial<DriveStep>) =>
    setDraft((d) => {
      const now = driveOf(d.lift)
      return now ? { ...d, lift: withMove(d.lift, { drive: { ...now, ...to } }) } : d
    })
  if (!drive)
    return (
      <div className="grid gap-3">
        <p>{t`Only stacked: nothing is said about the way there. Draw it over the place with a finger; it keeps to aisles and doors.`}</p>
        <Button
          className="w-fit"
          onClick={() => setDraft((d) => ({ ...d, lift: withMove(d.lift, { drive: firstWay(place) }) }))}
        >{t`Say it piece by piece instead`}</Button>
      </div>
    )
  return (
    <div className="grid gap-4">
      <p className="text-quiet">
        {drive.route
          ? t`As drawn over the place. Draw anew, or move its corners.`
          : t`Not drawn over the place: what is beside it is not checked.`}
      </p>
      {drive.way.length > most_pieces && (
        <p
          role="alert"
          className="font-semibold text-outside"
        >{t`This way has ${drive.way.length} pieces, at most ${most_pieces} are proved at once. Draw it shorter; prove the rest as another move.`}</p>
      )}
      <ClosedAreas
        place={place}
        lift={draft.lift}
        findings={findings}
        onChange={(closes) => setDraft((d) => ({ ...d, lift: { ...d.lift, closes } }))}
      />
      <WayPieces
        place={place}
        way={drive.way}
        kinds={trucksMeet}
        // More or fewer pieces than were drawn are another way.
        onChange={(way) => set(way.length === drive.way.length ? { way } : { way, route: undefined })}
      >
        <Button onClick={() => setDraft((d) => ({ ...d, lift: withMove(d.lift, { drive: null }) }))}>{t`Only stacked`}</Button>
      </WayPieces>
      <Choice
        label={t`Forks on the way`}
        value={drive.laden ? 'loaded' : 'empty'}
        options={[
          { value: 'loaded', label: t`Loaded` },
          { value: 'empty', label: t`Empty` },
        ]}
        onChange={(v) => set({ laden: v === 'loaded' })}
      />
      <Choice
        label={t`Driven`}
        value={drive.facing}
        options={[
          { value: 'load-first', label: drive.laden ? t`Load first` : t`Forks first` },
          { value: 'load-last', label: drive.laden ? t`Load last` : t`Forks last` },
        ]}
        onChange={(facing) => set({ facing })}
      />
      <NumberField
        label={t`Forks above the floor`}
        quantity="length"
        value={drive.height_m}
        least={0}
        onChange={(v) => v !== null && set({ height_m: v })}
      />
      <TolField
        label={t`Speed`}
        quantity="speed"
        value={drive.speed_mps}
        least={0}
        onChange={(speed_mps) => set({ speed_mps })}
        hint={t`Empty: what it may turn with is answered.`}
      />
    </div>
  )
}
