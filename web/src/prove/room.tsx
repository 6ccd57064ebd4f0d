import { high, type LiftPlan, lengthsOf, liftPoints, low, type SlewStep, type Slings } from '@geolabe/core'
import { memo } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, TolField } from '../look/field'
import { useSay } from '../units/units'

type Hung = LiftPlan['hung']
type Heights = NonNullable<SlewStep['heights']>

const sides = [
  ['length_m', t`Length`],
  ['width_m', t`Width`],
  ['height_m', t`Height`],
] as const

/** The same group of figures with one of them changed; none at all where nothing of it is entered any more. */
function entered<T extends object>(group: T): T | undefined {
  return Object.values(group).every((v) => v === null) ? undefined : group
}

type Size = NonNullable<Hung['load']['size']>

/** The load as it hangs. What is not entered stays open: no side is taken from another. */
export function SizeFields({ size, onChange }: { size: Size | undefined; onChange: (to: Size | undefined) => void }) {
  const set = (side: keyof Size, v: number | null) =>
    onChange(entered({ length_m: null, width_m: null, height_m: null, ...size, [side]: v }))
  return (
    <fieldset className="grid grid-cols-3 gap-2">
      <legend className="mb-1 font-semibold">{t`Its size as it hangs`}</legend>
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
  ['pickUp_m', t`Taken from`],
  ['over_m', t`Carried over`],
  ['setDown_m', t`Set down on`],
] as const

/** What the load is taken from, carried over and set down on, and how far it hangs below the hook. */
export const RoomPanel = memo(function RoomPanel({
  heights,
  hung,
  change,
  onHung,
}: {
  heights: SlewStep['heights']
  hung: Hung
  change: (to: Pick<SlewStep, 'heights'>) => void
  onHung: (to: Partial<Hung>) => void
}) {
  const set = (which: keyof Heights, v: number | null) =>
    change({ heights: entered({ pickUp_m: null, over_m: null, setDown_m: null, ...heights, [which]: v }) })
  return (
    <div className="grid gap-3">
      <fieldset className="grid grid-cols-3 gap-2">
        <legend className="mb-1 font-semibold">{t`Heights above its ground`}</legend>
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
        label={t`Hook to top of the load`}
        quantity="length"
        value={hung.rigging_height_m ?? null}
        least={0}
        onChange={(v) => onHung({ rigging_height_m: v ?? undefined })}
        hint={hung.slings ? t`Worked out from the slings once they are entered.` : t`Slings, shackles, spreader.`}
      />
    </div>
  )
})

const first: Slings = { legs: 4, length_m: null, along_m: null, across_m: null, wll_kg: null, hitch: 'straight' }
const hitches = [
  { value: 'straight', label: t`Straight` },
  { value: 'choker', label: t`Choker`, note: t`at 120° or more` },
] as const

/** The furthest that the hook may be above the lift points, metres; null while a length is missing, or where the legs do not meet. */
function hookOver(slings: Slings): number | null {
  const lengths = lengthsOf(slings)
  if (!lengths) return null
  const { length_m, along_m, across_m } = lengths
  return liftPoints({ legs: slings.legs, length_m: high(length_m), along_m: low(along_m), across_m: low(across_m) }).hook_m
}

/** Slings as people have them: how many legs, how long, how far apart, what their tag says. */
export const SlingPanel = memo(function SlingPanel({ hung, onHung }: { hung: Hung; onHung: (to: Partial<Hung>) => void }) {
  const say = useSay()
  const { slings } = hung
  const hook_m = slings ? hookOver(slings) : null
  // How far the load hangs below the hook follows from its slings once they are entered whole.
  const put = (to: Slings | undefined) => {
    const above_m = to ? hookOver(to) : null
    onHung({ slings: to, ...(above_m === null ? {} : { rigging_height_m: Math.ceil(above_m * 100) / 100 }) })
  }
  if (!slings) {
    return <Button className="w-fit" onClick={() => put(first)}>{t`Check the slings too`}</Button>
  }
  const set = (to: Partial<Slings>) => put({ ...slings, ...to })
  return (
    <div className="grid gap-3">
      <Choice
        label={t`Legs`}
        value={String(slings.legs)}
        options={['1', '2', '4'].map((n) => ({ value: n, label: n }))}
        onChange={(n) => set({ legs: n === '1' ? 1 : n === '2' ? 2 : 4 })}
      />
      <TolField
        label={t`Length of a leg`}
        quantity="length"
        value={slings.length_m}
        least={0.1}
        onChange={(length_m) => set({ length_m })}
      />
      {slings.legs > 1 && (
        <fieldset className="grid gap-2 sm:grid-cols-2">
          <legend className="mb-1 font-semibold">{t`Between the lift points`}</legend>
          <TolField
            label={t`Along`}
            quantity="length"
            value={slings.along_m}
            least={0}
            onChange={(along_m) => set({ along_m })}
          />
          {slings.legs === 4 && (
            <TolField
              label={t`Across`}
              quantity="length"
              value={slings.across_m}
              least={0}
              onChange={(across_m) => set({ across_m })}
            />
          )}
        </fieldset>
      )}
      <NumberField
        label={t`Marked on one leg, straight`}
        quantity="mass"
        value={slings.wll_kg}
        least={1}
        onChange={(wll_kg) => set({ wll_kg })}
      />
      <Choice
        label={t`Hitch`}
        value={slings.hitch}
        options={[...hitches]}
        onChange={(hitch) => set(hitch === 'choker' ? { hitch, chokerAngle_deg: 120 } : { hitch, chokerAngle_deg: undefined })}
      />
      <p className="text-[0.92rem] text-quiet">{t`${hook_m === null ? '' : t`Hook ${say('length', hook_m)} above the lift points. `}For lift points that stand evenly about the load’s centre of gravity; slung otherwise, or over an edge, work it out leg by leg under Calculators.`}</p>
      <Button className="w-fit" onClick={() => put(undefined)}>{t`Leave the slings out`}</Button>
    </div>
  )
})
