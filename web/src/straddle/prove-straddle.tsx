import type { Shift } from '@geolabe/contract'
import type { CheckName, DriveStep, Hung, Place, StraddleMachine } from '@geolabe/core'
import { useMemo } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { CrewSheet } from '../prove/crew-sheet'
import { withHung } from '../prove/draft'
import { SharedLoadSheet } from '../prove/load-sheet'
import type { OutdoorDraft, SetOutdoor } from '../prove/outdoor-draft'
import { ProveStation } from '../prove/prove-station'
import { useProving } from '../prove/use-proving'
import { WindSheet } from '../prove/wind-sheet'
import { firstWay } from '../truck/draft'
import { roadsHave, WayPieces } from '../truck/way-pieces'
import { carryIn, firstCarry, isCarry, withCarry } from './draft'
import { StraddleView } from './straddle-view'

type Tab = 'load' | 'slings' | 'way' | 'crew' | 'wind'

/** On which sheet each check is put right. */
const sheetOf: Partial<Record<CheckName, Tab>> = {
  mass: 'load',
  rating: 'load',
  share: 'load',
  'hoist-rope': 'load',
  structure: 'slings',
  way: 'way',
  travel: 'way',
  floor: 'way',
  wheel: 'way',
  people: 'crew',
  wind: 'wind',
}

/** Station: one boat raised in its slings, driven and put down. */
export function ProveStraddle({
  machine,
  setup,
  ...context
}: ShiftContext & { machine: StraddleMachine; setup: Shift['setups'][number] }) {
  const { shift, place } = context
  const [draft, setDraft, clear] = useDraft<OutdoorDraft>(`${shift.id}.prove`, () => firstCarry(place, shift), isCarry)
  const { lift, wind_mps, roofShut } = draft
  const conditions = useMemo(() => ({ wind_mps, roofShut }), [wind_mps, roofShut])
  const proving = useProving<Tab>(context, setup, { lift, conditions }, sheetOf, 'load', clear)
  const { standing } = setup.plan
  return (
    <ProveStation
      title={t`Prove the lift`}
      on={t`In the slings`}
      drawing={
        <StraddleView
          machine={machine}
          standing={standing.on === 'frame' ? standing : null}
          lift={lift}
          assessment={proving.assessment}
        />
      }
      label={t`What the lift is planned with`}
      tabs={[
        {
          id: 'load',
          name: t`Boat`,
          body: <SharedLoadSheet place={place} draft={draft} setDraft={setDraft} what={t`What is lifted`} />,
        },
        { id: 'slings', name: t`Slings`, body: <BellySheet draft={draft} setDraft={setDraft} /> },
        { id: 'way', name: t`Way`, body: <CarrySheet place={place} draft={draft} setDraft={setDraft} /> },
        {
          id: 'crew',
          name: t`Crew`,
          body: (
            <CrewSheet
              lift={draft.lift}
              setLift={(to) => setDraft((d) => ({ ...d, lift: to(d.lift) }))}
              hint={t`From the middle of its wheels. They walk along with it, face it, and stay in sight.`}
              radio
            />
          ),
        },
        { id: 'wind', name: t`Wind`, body: <WindSheet draft={draft} setDraft={setDraft} /> },
      ]}
      next={t`Record this proof, on to the lift`}
      onTake={({ changedCase: to }) => to && setDraft((d) => ({ ...d, lift: to.lift, wind_mps: to.conditions.wind_mps }))}
      proving={proving}
    />
  )
}

type Belly = NonNullable<Hung['belly']>
const unmeasured: Belly = { halfBreadth_m: null, rise_m: null, wll_kg: null }

function BellySheet({ draft, setDraft }: { draft: OutdoorDraft; setDraft: SetOutdoor }) {
  const belly = draft.lift.hung.belly ?? unmeasured
  const set = (to: Partial<Belly>) => setDraft((d) => ({ ...d, lift: withHung(d.lift, { belly: { ...belly, ...to } }) }))
  return (
    <div className="grid gap-3">
      <TolField
        label={t`Half her breadth where the slings lie`}
        quantity="length"
        value={belly.halfBreadth_m}
        least={0.1}
        onChange={(halfBreadth_m) => set({ halfBreadth_m })}
      />
      <TolField
        label={t`From there up to the beams`}
        quantity="length"
        value={belly.rise_m}
        least={0.1}
        onChange={(rise_m) => set({ rise_m })}
        hint={t`At its least, with her raised.`}
      />
      <NumberField
        label={t`One sling is marked`}
        quantity="mass"
        value={belly.wll_kg}
        least={1}
        onChange={(wll_kg) => set({ wll_kg })}
        hint={t`Empty: its tag cannot be read.`}
      />
    </div>
  )
}

function CarrySheet({ place, draft, setDraft }: { place: Place; draft: OutdoorDraft; setDraft: SetOutdoor }) {
  const { raised_m, down_m, drive } = carryIn(draft.lift)
  const set = (to: Parameters<typeof withCarry>[1]) => setDraft((d) => ({ ...d, lift: withCarry(d.lift, to) }))
  const way = (to: Partial<DriveStep>) => drive && set({ drive: { ...drive, ...to } })
  return (
    <div className="grid gap-4">
      <div className="grid gap-3">
        <TolField
          label={t`Keel raised to`}
          quantity="length"
          value={raised_m}
          least={0}
          onChange={(v) => v !== null && set({ raised_m: v })}
        />
        <TolField
          label={t`Keel put down at`}
          quantity="length"
          value={down_m}
          least={0}
          onChange={(v) => v !== null && set({ down_m: v })}
        />
      </div>
      {drive === null ? (
        <Button className="w-fit" onClick={() => set({ drive: firstWay(place) })}>{t`She is driven somewhere`}</Button>
      ) : (
        <>
          <WayPieces place={place} way={drive.way} kinds={roadsHave} onChange={(to) => way({ way: to })}>
            <Button onClick={() => set({ drive: null })}>{t`Only raised`}</Button>
          </WayPieces>
          <Choice
            label={t`Driven`}
            value={drive.facing}
            options={[
              { value: 'load-first', label: t`Front first` },
              { value: 'load-last', label: t`Rear first` },
            ]}
            onChange={(facing) => way({ facing })}
          />
          <TolField
            label={t`Speed in the turns`}
            quantity="speed"
            value={drive.speed_mps}
            least={0}
            onChange={(speed_mps) => way({ speed_mps })}
          />
        </>
      )}
    </div>
  )
}
