import type { Shift } from '@geolabe/contract'
import type { CheckName, RunwayMachine } from '@geolabe/core'
import { useDraft } from '../api/draft'
import { t } from '../language/t'
import { TolField } from '../look/field'
import type { ShiftContext } from '../order/context'
import { type ProveDraft, withHung } from '../prove/draft'
import { LoadPanel } from '../prove/inputs'
import { ProveStation } from '../prove/prove-station'
import { SlingPanel } from '../prove/room'
import { useProving } from '../prove/use-proving'
import { useSay } from '../units/units'
import { BeamView } from './beam-view'
import { firstTraverse, isTraverse, traverseOf, withTraverse } from './draft'

type Tab = 'load' | 'travel' | 'slings'

/** On which sheet each check is put right. */
const sheetOf: Partial<Record<CheckName, Tab>> = { mass: 'load', rating: 'load', 'hoist-rope': 'load', structure: 'travel' }

/** Under a roof there is no wind. */
const indoors = { wind_mps: null, roofShut: true }

/** Station: one load taken along the beam. */
export function ProveRunway({
  machine,
  setup,
  ...context
}: ShiftContext & { machine: RunwayMachine; setup: Shift['setups'][number] }) {
  const { shift, place } = context
  const say = useSay()
  const [draft, setDraft, clear] = useDraft<ProveDraft>(`${shift.id}.prove`, () => firstTraverse(machine, shift), isTraverse)
  const { lift } = draft
  const proving = useProving<Tab>(context, setup, { lift, conditions: indoors }, sheetOf, 'load', clear)
  const step = traverseOf(lift)
  const set = (to: Partial<typeof step>) => setDraft((d) => ({ ...d, lift: withTraverse(d.lift, to) }))
  const { beam, travel } = machine.runway
  const { stops } = travel
  return (
    <ProveStation
      title={t`Prove the lift`}
      on={t`On the hook`}
      drawing={
        <BeamView
          machine={machine}
          lift={lift}
          assessment={proving.assessment}
          onMove={(which, at_m) => set({ [which]: typeof step[which] === 'number' ? at_m : { ...step[which], value: at_m } })}
        />
      }
      label={t`What the lift is planned with`}
      tabs={[
        { id: 'load', name: t`Load`, body: <LoadPanel place={place} hung={lift.hung} windless setDraft={setDraft} /> },
        {
          id: 'travel',
          name: t`Travel`,
          body: (
            <div className="grid gap-3">
              <TolField
                label={t`P · Taken up at, from the far support`}
                quantity="length"
                value={step.from_m}
                least={stops.from_m}
                onChange={(from_m) => from_m !== null && set({ from_m })}
              />
              <TolField
                label={t`S · Put down at`}
                quantity="length"
                value={step.to_m}
                least={stops.from_m}
                onChange={(to_m) => to_m !== null && set({ to_m })}
              />
              <p className="text-quiet">{t`Its end stops let it travel from ${say('length', stops.from_m)} to ${say('length', stops.to_m)}; the near support stands at ${say('length', beam.span_m)}.`}</p>
            </div>
          ),
        },
        {
          id: 'slings',
          name: t`Slings`,
          body: <SlingPanel hung={lift.hung} onHung={(to) => setDraft((d) => ({ ...d, lift: withHung(d.lift, to) }))} />,
        },
      ]}
      next={t`Record this proof, on to the lift`}
      onTake={({ changedCase }) => changedCase && setDraft((d) => ({ ...d, lift: changedCase.lift }))}
      proving={proving}
    />
  )
}
