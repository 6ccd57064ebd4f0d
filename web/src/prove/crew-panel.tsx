import type { Crane, Crew, StandRole } from '@geolabe/core'
import { memo, useState } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { NumberField, TextField } from '../look/field'
import { Tick } from '../look/tick'
import { HandSignals } from '../signals/hand-signals'

/** Nobody but the operator. */
export const alone: Crew = { signaller: null, sightBy: 'operator', signals: null }
const first_m = { x_m: 3, y_m: 3 }
const whole = (v: number) => Math.round(v * 10) / 10

/** Who sees the load: from where an operator with a remote looks, and who signals where the load is out of sight. */
export const CrewPanel = memo(function CrewPanel({
  eye,
  crew = alone,
  onChange,
}: {
  eye: Crane['eye']
  crew: Crew | undefined
  onChange: (to: Crew) => void
}) {
  const posts = crew.posts ?? []
  const stand = (to: Crew['posts']) => onChange({ ...crew, posts: to })
  return (
    <div className="mt-3 grid gap-3">
      {eye && (
        <Choice
          label={t`Who sees the load`}
          value={crew.sightBy}
          onChange={(sightBy) => onChange({ ...crew, sightBy })}
          options={[
            { value: 'operator', label: t`The operator` },
            { value: 'signaller', label: t`A signaller too` },
            ...(eye.camera ? [{ value: 'camera' as const, label: t`A camera` }] : []),
          ]}
        />
      )}
      {crew.sightBy === 'signaller' && (
        <>
          <TextField
            label={t`Who signals, by name`}
            value={crew.signaller ?? ''}
            onChange={(name) => onChange({ ...crew, signaller: name.trim() === '' ? null : name })}
          />
          <Tick
            checked={crew.signals === 'agreed'}
            onChange={(on) => onChange({ ...crew, signals: on ? 'agreed' : null })}
          >{t`Signals agreed; anyone’s stop is a stop`}</Tick>
          <Tick
            checked={crew.told === 'radio'}
            onChange={(on) => onChange({ ...crew, told: on ? 'radio' : undefined })}
          >{t`By radio, not by hand`}</Tick>
          {crew.told !== 'radio' && (
            <details>
              <summary className="min-h-10 cursor-pointer py-1.5 font-semibold">{t`The signals, drawn`}</summary>
              <HandSignals />
            </details>
          )}
        </>
      )}
      <Stands stands={crew.stands ?? []} onChange={(stands) => onChange({ ...crew, stands })} />
      {eye?.on === 'foot' && (
        <fieldset className="grid gap-2">
          <legend className="mb-1 font-semibold">{t`Where the operator stands with the remote`}</legend>
          {posts.map((p, i) => (
            <PlaceRow
              // biome-ignore lint/suspicious/noArrayIndexKey: they are gone to in this order
              key={i}
              name={String(i + 1)}
              at={p}
              offName={t`Take place ${i + 1} off`}
              onChange={(to) => stand(posts.map((o, k) => (k === i ? { ...o, ...to } : o)))}
              onOff={() => stand(posts.length > 1 ? posts.filter((_, k) => k !== i) : undefined)}
            />
          ))}
          {posts.length < 6 && (
            <Button className="w-fit" onClick={() => stand([...posts, posts.at(-1) ?? first_m])}>
              {posts.length === 0 ? t`Say where` : t`Then goes on to`}
            </Button>
          )}
        </fieldset>
      )}
    </div>
  )
})

export const roleNames: Record<StandRole, string> = {
  signaller: t`Signaller`,
  slinger: t`Slinger`,
  'tag-line': t`Tag line`,
  spotter: t`Spotter`,
}
const roles = Object.keys(roleNames) as StandRole[]
type Stand = NonNullable<Crew['stands']>[number]
/** As many as a plan takes. */
const most = 8

/** Where everybody else stands while the load is up: set down here, dragged in the drawing where it can be. */
export function Stands({ stands, onChange }: { stands: readonly Stand[]; onChange: (to: Stand[] | undefined) => void }) {
  // Open as it was left: with the last of them taken off, the next is put down where one is.
  const [open, setOpen] = useState(stands.length > 0)
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-10 cursor-pointer py-1.5 font-semibold">{t`Who stands where`}</summary>
      <div className="grid gap-2">
        {stands.map((s, i) => (
          <PlaceRow
            // biome-ignore lint/suspicious/noArrayIndexKey: told apart by their place in the list alone
            key={i}
            name={roleNames[s.role]}
            at={s}
            offName={t`Take ${roleNames[s.role].toLowerCase()} ${i + 1} off`}
            onChange={(to) => onChange(stands.map((o, k) => (k === i ? { ...o, ...to } : o)))}
            onOff={() => onChange(stands.length > 1 ? stands.filter((_, k) => k !== i) : undefined)}
          />
        ))}
        {stands.length < most && (
          <div className="flex flex-wrap gap-2">
            {roles.map((role) => (
              <Button
                key={role}
                onClick={() => onChange([...stands, { role, x_m: first_m.x_m + 1.5 * stands.length, y_m: first_m.y_m + 4 }])}
              >
                + {roleNames[role]}
              </Button>
            ))}
          </div>
        )}
      </div>
    </details>
  )
}

interface At {
  x_m: number
  y_m: number
}

/** One place on the ground, by its two figures from the slew centre. */
function PlaceRow({
  name,
  at,
  offName,
  onChange,
  onOff,
}: {
  name: string
  at: At
  offName: string
  onChange: (to: Partial<At>) => void
  onOff: () => void
}) {
  const sides = [
    ['x_m', t`${name} · ahead`],
    ['y_m', t`to the left`],
  ] as const
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      {sides.map(([side, label]) => (
        <NumberField
          key={side}
          label={label}
          quantity="length"
          value={whole(at[side])}
          onChange={(v) => v !== null && onChange({ [side]: v })}
        />
      ))}
      <Button aria-label={offName} onClick={onOff}>{t`Off`}</Button>
    </div>
  )
}
