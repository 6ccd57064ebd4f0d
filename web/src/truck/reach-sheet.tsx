import { pointAt, type ReachPoint, type TruckMachine } from '@geolabe/core'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { NumberField } from '../look/field'
import type { OutdoorDraft, SetOutdoor } from '../prove/outdoor-draft'
import { placing, reachOf, withMove } from './draft'

const ends = [
  ['from', t`Taken at`],
  ['to', t`Placed at`],
] as const

/** Where a boom takes the load and where it places it, and whether it is drawn in between. */
export function ReachSheet({ machine, draft, setDraft }: { machine: TruckMachine; draft: OutdoorDraft; setDraft: SetOutdoor }) {
  const { reach, faceToAxle_m } = machine.truck
  const step = reachOf(draft.lift)
  if (!reach || !step) return null
  const pointOf = (w: (typeof step.waypoints)[number] | undefined): ReachPoint =>
    !w ? { height_m: 1.45, reach_m: 2 } : 'boom_m' in w ? pointAt(reach, faceToAxle_m, w) : w
  const now = { from: pointOf(step.waypoints[0]), to: pointOf(step.waypoints.at(-1)) }
  const short = step.waypoints.length > 2
  const set = (points: Partial<typeof now>, drawnIn = short) => {
    const { from, to } = { ...now, ...points }
    const raised = placing(reach, faceToAxle_m, from, to, drawnIn)
    setDraft((d) => ({ ...d, lift: withMove(d.lift, { raised }) }))
  }
  return (
    <div className="grid gap-3">
      {ends.map(([end, name]) => (
        <fieldset key={end} className="grid grid-cols-2 gap-2">
          <legend className="mb-1 font-bold">{name}</legend>
          <NumberField
            label={t`Height of the forks`}
            quantity="length"
            value={Math.round(now[end].height_m * 1000) / 1000}
            onChange={(v) => v !== null && set({ [end]: { ...now[end], height_m: v } })}
          />
          <NumberField
            label={t`Reach, from the tyres`}
            quantity="length"
            value={Math.round(now[end].reach_m * 1000) / 1000}
            onChange={(v) => v !== null && set({ [end]: { ...now[end], reach_m: v } })}
          />
        </fieldset>
      ))}
      <Choice
        label={t`Between them`}
        value={short ? 'short' : 'straight'}
        onChange={(v) => set({}, v === 'short')}
        options={[
          { value: 'short', label: t`Boom in first`, note: t`raised short, then out` },
          { value: 'straight', label: t`Both at once`, note: t`out while it is raised` },
        ]}
      />
      <p className="text-quiet">{t`Reach counts from the front of the tyres to the load centre, height to the top of the forks. The grid is read along the whole way, not only where it is placed.`}</p>
    </div>
  )
}
