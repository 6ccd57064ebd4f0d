import { high, type LiftPlan, type LoadSize, liftPoints, nominal, type Slings, type Step } from '@geolabe/core'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, TolField } from '../look/field'
import { Sheet } from '../look/page'
import { useSay } from '../units/units'

type Hung = LiftPlan['hung']
type Heights = NonNullable<Step['heights']>

const sides = [
  ['length_m', 'Length'],
  ['width_m', 'Width'],
  ['height_m', 'Height'],
] as const

/** The load as it hangs; all three, or nobody has said. */
export function SizeFields({ size, onChange }: { size: LoadSize | undefined; onChange: (to: LoadSize | undefined) => void }) {
  const set = (side: (typeof sides)[number][0], v: number | null) => {
    if (v === null) onChange(undefined)
    else onChange({ length_m: v, width_m: v, height_m: v, ...size, [side]: v })
  }
  return (
    <fieldset className="grid grid-cols-3 gap-2">
      <legend className="mb-1 font-semibold">Its size as it hangs</legend>
      {sides.map(([side, label]) => (
        <NumberField
          key={side}
          label={label}
          quantity="length"
          value={size?.[side] ?? null}
          least={0.05}
          onChange={(v) => set(side, v)}
        />
      ))}
    </fieldset>
  )
}

const levels = [
  ['pickUp_m', 'Taken from'],
  ['over_m', 'Carried over'],
  ['setDown_m', 'Set down on'],
] as const

/** What the load is taken from, carried over and set down on, and how far it hangs below the hook. */
export function RoomPanel({
  step,
  hung,
  change,
  onHung,
}: {
  step: Step
  hung: Hung
  change: (to: Partial<Step>) => void
  onHung: (to: Partial<Hung>) => void
}) {
  const { heights } = step
  const set = (which: keyof Heights, v: number | null) =>
    change({ heights: v === null ? undefined : { pickUp_m: 0, over_m: 0, setDown_m: 0, ...heights, [which]: v } })
  return (
    <Sheet title="Room above and below">
      <div className="grid gap-3">
        <fieldset className="grid grid-cols-3 gap-2">
          <legend className="mb-1 font-semibold">Heights above the ground the machine stands on</legend>
          {levels.map(([which, label]) => (
            <NumberField
              key={which}
              label={label}
              quantity="length"
              value={heights?.[which] ?? null}
              onChange={(v) => set(which, v)}
            />
          ))}
        </fieldset>
        <TolField
          label="From the hook down to the top of the load"
          quantity="length"
          value={hung.rigging_height_m ?? null}
          least={0}
          onChange={(v) => onHung({ rigging_height_m: v ?? undefined })}
          hint={hung.slings ? 'Worked out from the slings.' : 'Slings, shackles, spreader.'}
        />
      </div>
    </Sheet>
  )
}

const first: Slings = { legs: 4, length_m: 3, along_m: 2, across_m: 1.2, wll_kg: null, hitch: 'straight' }
const hitches = [
  { value: 'straight', label: 'Straight' },
  { value: 'choker', label: 'Choker', note: 'at 120° or more' },
] as const

/** Slings as people have them: how many legs, how long, how far apart, what their tag says. */
export function SlingPanel({ hung, onHung }: { hung: Hung; onHung: (to: Partial<Hung>) => void }) {
  const say = useSay()
  const { slings } = hung
  const put = (to: Slings | undefined) => {
    const { hook_m } = to
      ? liftPoints({ ...to, length_m: high(to.length_m), along_m: nominal(to.along_m), across_m: nominal(to.across_m) })
      : { hook_m: null }
    onHung({ slings: to, ...(hook_m === null ? {} : { rigging_height_m: Math.ceil(hook_m * 100) / 100 }) })
  }
  if (!slings) {
    return (
      <Sheet title="Slings">
        <Button className="w-fit" onClick={() => put(first)}>
          Check the slings too
        </Button>
      </Sheet>
    )
  }
  const set = (to: Partial<Slings>) => put({ ...slings, ...to })
  return (
    <Sheet title="Slings">
      <div className="grid gap-3">
        <Choice
          label="Legs"
          value={String(slings.legs)}
          options={['1', '2', '4'].map((n) => ({ value: n, label: n }))}
          onChange={(n) => set({ legs: n === '1' ? 1 : n === '2' ? 2 : 4 })}
        />
        <TolField
          label="Length of a leg"
          quantity="length"
          value={slings.length_m}
          least={0.1}
          onChange={(v) => v && set({ length_m: v })}
        />
        {slings.legs > 1 && (
          <fieldset className="grid gap-2 sm:grid-cols-2">
            <legend className="mb-1 font-semibold">Between the lift points</legend>
            <TolField
              label="Along"
              quantity="length"
              value={slings.along_m}
              least={0}
              onChange={(v) => v !== null && set({ along_m: v })}
            />
            {slings.legs === 4 && (
              <TolField
                label="Across"
                quantity="length"
                value={slings.across_m}
                least={0}
                onChange={(v) => v !== null && set({ across_m: v })}
              />
            )}
          </fieldset>
        )}
        <NumberField
          label="Marked on one leg, straight"
          quantity="mass"
          value={slings.wll_kg}
          least={1}
          onChange={(wll_kg) => set({ wll_kg })}
        />
        <Choice
          label="Hitch"
          value={slings.hitch}
          options={[...hitches]}
          onChange={(hitch) => set(hitch === 'choker' ? { hitch, chokerAngle_deg: 120 } : { hitch, chokerAngle_deg: undefined })}
        />
        <p className="text-[0.92rem] text-quiet">
          Hook {say('length', nominal(hung.rigging_height_m ?? 0))} above the lift points, evenly over the load’s centre of
          gravity. Slung unevenly, or over an edge: work it out leg by leg under Calculators.
        </p>
        <Button className="w-fit" onClick={() => put(undefined)}>
          Leave the slings out
        </Button>
      </div>
    </Sheet>
  )
}
