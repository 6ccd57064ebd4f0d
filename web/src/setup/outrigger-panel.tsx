import {
  groundAt,
  type MachinePosition,
  type Outrigger,
  type OutriggerCrane,
  type Place,
  stopNamed,
  stopsOf,
} from '@geolabe/core'
import { findingWords } from '../language/finding-words'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { SelectField } from '../look/field'
import { UseBar } from '../look/verdict'
import { useSay } from '../units/units'
import { blockedBy, type OutriggerDraft } from './draft'
import { GroundField } from './ground-field'
import type { OutriggerState } from './outrigger-state'

/** One outrigger: how far out, on what mat, on what ground, and what it presses with. */
export function OutriggerPanel({
  outrigger,
  draft,
  state,
  machine,
  place,
  position,
  onChange,
}: {
  outrigger: Outrigger
  draft: OutriggerDraft
  state: OutriggerState | undefined
  machine: OutriggerCrane
  place: Place
  position: MachinePosition
  onChange: (to: Partial<OutriggerDraft>) => void
}) {
  const say = useSay()
  const ways = stopsOf(outrigger).map((stop) => ({
    stop,
    blocked: blockedBy(machine, place, position, outrigger.id, stop.id, draft.mat),
  }))
  const lies = groundAt(place, position, stopNamed(outrigger, draft.at.stop))
  const blocked = ways.filter((w) => w.blocked)
  return (
    <section aria-label={outrigger.label}>
      <div className="grid gap-3 sm:grid-cols-2">
        <div className="sm:col-span-2">
          {ways.length > 1 && (
            <Choice
              label={t`Beam, ${outrigger.label}`}
              hideLabel
              value={draft.at.stop}
              onChange={(stop) => onChange({ at: { stop }, ground: null })}
              options={ways.map(({ stop, blocked: no }) => ({ value: stop.id, label: stop.label, disabled: Boolean(no) }))}
            />
          )}
          {blocked.length > 0 && (
            <p className="mt-1 text-[0.95rem] font-semibold text-near">{t`${[...new Set(blocked.map((b) => b.blocked?.label))].join(', ')} in the way of ${blocked.map((b) => b.stop.label.toLowerCase()).join(' and ')}${draft.mat ? t` with this mat` : ''}.`}</p>
          )}
        </div>
        <SelectField
          label={t`Under the pad`}
          value={draft.mat ?? ''}
          onChange={(m) => onChange({ mat: m === '' ? null : m })}
          options={[{ value: '', label: t`Own pad only` }, ...place.mats.map((m) => ({ value: m.id, label: m.label }))]}
        />
        <GroundField label={t`Ground`} place={place} value={draft.ground ?? lies} onChange={(g) => onChange({ ground: g })} />
      </div>
      {[state?.ground, state?.structure].map(
        (f) =>
          f && (
            <div key={f.id} className="mt-3">
              {f.utilisation !== null && <UseBar verdict={f.verdict} share={f.utilisation} />}
              <p className="mt-1">{findingWords(f, say).what}</p>
            </div>
          ),
      )}
    </section>
  )
}
