import type { Shift } from '@geolabe/contract'
import type { CheckName, GantryMachine } from '@geolabe/core'
import { useMemo } from 'react'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { NumberField, TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { CrewSheet } from '../prove/crew-sheet'
import { SharedLoadSheet } from '../prove/load-sheet'
import type { OutdoorDraft, SetOutdoor } from '../prove/outdoor-draft'
import { ProveStation } from '../prove/prove-station'
import { useProving } from '../prove/use-proving'
import { WindSheet } from '../prove/wind-sheet'
import { useSay } from '../units/units'
import { firstRaising, isRaising, withWork, workIn } from './draft'
import { GantryView } from './gantry-view'

type Tab = 'load' | 'heights' | 'crew' | 'wind'

/** On which sheet each check is put right. */
const sheetOf: Partial<Record<CheckName, Tab>> = {
  mass: 'load',
  people: 'crew',
  rating: 'heights',
  share: 'load',
  structure: 'heights',
  wind: 'wind',
}

/** Station: one load raised between towers, travelled with and put down. */
export function ProveGantry({
  machine,
  setup,
  ...context
}: ShiftContext & { machine: GantryMachine; setup: Shift['setups'][number] }) {
  const { shift, place, file } = context
  const [draft, setDraft, clear] = useDraft<OutdoorDraft>(
    `${shift.id}.prove`,
    () => firstRaising(machine, place, shift),
    isRaising,
  )
  const { lift, wind_mps, roofShut } = draft
  const conditions = useMemo(() => ({ wind_mps, roofShut }), [wind_mps, roofShut])
  const proving = useProving<Tab>(context, setup, { lift, conditions }, sheetOf, 'load', clear)
  const { standing } = setup.plan
  return (
    <ProveStation
      title={t`Prove the lift`}
      on={t`Between the towers`}
      rated={t`Least rated tower`}
      drawing={
        <GantryView
          machine={machine}
          standing={standing.on === 'towers' ? standing : null}
          lift={lift}
          tables={file.tables}
          assessment={proving.assessment}
        />
      }
      label={t`What the lift is planned with`}
      tabs={[
        {
          id: 'load',
          name: t`Load`,
          body: <SharedLoadSheet place={place} draft={draft} setDraft={setDraft} what={t`What is lifted`} />,
        },
        { id: 'heights', name: t`Heights`, body: <HeightsSheet machine={machine} draft={draft} setDraft={setDraft} /> },
        {
          id: 'crew',
          name: t`Crew`,
          body: (
            <CrewSheet
              lift={lift}
              setLift={(to) => setDraft((d) => ({ ...d, lift: to(d.lift) }))}
              hint={t`From the middle of its towers. They walk along with it, outside the barriers.`}
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

function HeightsSheet({ machine, draft, setDraft }: { machine: GantryMachine; draft: OutdoorDraft; setDraft: SetOutdoor }) {
  const say = useSay()
  const work = workIn(draft.lift)
  const set = (to: Partial<typeof work>) => setDraft((d) => ({ ...d, lift: withWork(d.lift, to) }))
  return (
    <div className="grid gap-3">
      <p className="text-quiet">{t`Heights of the towers, not of the load: each stage has its own rating.`}</p>
      <TolField
        label={t`Towers at pick-up`}
        quantity="length"
        value={work.from_m}
        least={0.1}
        onChange={(from_m) => from_m !== null && set({ from_m })}
      />
      <TolField
        label={t`Raised to`}
        quantity="length"
        value={work.raised_m}
        least={0.1}
        onChange={(raised_m) => raised_m !== null && set({ raised_m })}
      />
      <NumberField
        label={t`Travels along the track`}
        quantity="length"
        value={work.travel_m}
        least={0}
        most={machine.gantry.stand.track_m}
        onChange={(v) => set({ travel_m: v ?? 0 })}
        hint={t`The track is ${say('length', machine.gantry.stand.track_m)} long.`}
      />
      <NumberField
        label={t`Shifted to the left on the headers`}
        quantity="length"
        value={work.shift_m}
        onChange={(v) => set({ shift_m: v ?? 0 })}
        hint={t`To the right: minus.`}
      />
      <TolField
        label={t`Towers at set-down`}
        quantity="length"
        value={work.down_m}
        least={0.1}
        onChange={(down_m) => down_m !== null && set({ down_m })}
      />
    </div>
  )
}
