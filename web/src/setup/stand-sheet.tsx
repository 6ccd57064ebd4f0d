import { type MachinePosition, type OutriggerCrane, type Place, standsToTow } from '@geolabe/core'
import { t } from '../language/t'
import { Choice } from '../look/choice'
import { NumberField, SelectField } from '../look/field'
import { useSay } from '../units/units'
import type { SetupDraft } from './draft'

/** Where it stands, and what is fitted. */
export function StandSheet({
  machine,
  place,
  draft,
  onChange,
  onMove,
}: {
  machine: OutriggerCrane
  place: Place
  draft: SetupDraft
  onChange: (to: Partial<SetupDraft>) => void
  onMove: (to: MachinePosition) => void
}) {
  const say = useSay()
  const { position } = draft
  const marked = place.positions.find(
    (s) => s.x_m === position.x_m && s.y_m === position.y_m && s.heading_deg === position.heading_deg,
  )
  return (
    <div className="grid gap-3">
      {machine.supportStates && (
        <Choice
          label={t`Way of standing`}
          value={draft.state}
          options={machine.supportStates.map((s) => ({ value: s.id, label: s.label }))}
          onChange={(state) => onChange({ state })}
        />
      )}
      <Choice
        label={t`Marked stand`}
        value={marked?.id ?? null}
        options={place.positions.map((s) => ({ value: s.id, label: s.label }))}
        onChange={(id) => {
          const s = place.positions.find((x) => x.id === id)
          if (s) onMove({ x_m: s.x_m, y_m: s.y_m, heading_deg: s.heading_deg })
        }}
      />
      <div className="grid grid-cols-3 gap-2">
        <NumberField
          label={t`Along`}
          quantity="length"
          value={position.x_m}
          onChange={(v) => v !== null && onMove({ ...position, x_m: v })}
        />
        <NumberField
          label={t`Across`}
          quantity="length"
          value={position.y_m}
          onChange={(v) => v !== null && onMove({ ...position, y_m: v })}
        />
        <NumberField
          label={t`Heading`}
          quantity="angle"
          value={position.heading_deg}
          onChange={(v) => v !== null && onMove({ ...position, heading_deg: v })}
        />
      </div>
      {machine.truck?.attachments && (
        <Choice
          label={t`Tool`}
          value={draft.attachment ?? null}
          options={machine.truck.attachments.map((a) => ({ value: a.id, label: a.label }))}
          onChange={(attachment) => onChange({ attachment })}
        />
      )}
      {machine.truck?.attachments && machine.display?.shows.includes('attachment') && (
        <SelectField
          label={t`Tool on the ${machine.display.label.toLowerCase()}`}
          value={draft.shown ?? ''}
          options={[
            { value: '', label: t`Not read` },
            ...machine.truck.attachments.map((a) => ({ value: a.id, label: a.label })),
          ]}
          onChange={(shown) => onChange({ shown: shown === '' ? null : shown })}
          hint={t`Read it there, not off the tool.`}
        />
      )}
      {machine.upper.counterweights.length > 1 && (
        <Choice
          label={t`Counterweight fitted`}
          value={draft.counterweight}
          options={machine.upper.counterweights.map((c) => ({ value: c.id, label: c.label }))}
          onChange={(counterweight) => onChange({ counterweight })}
        />
      )}
      {!standsToTow(machine, { state: draft.state ?? undefined }) && (
        <Choice
          label={t`Parts of line`}
          value={String(draft.partsOfLine)}
          options={machine.hoist.reevings.map((r) => ({
            value: String(r.parts),
            label: String(r.parts),
            note: `${r.block.name}, ${say('mass', r.block.mass_kg)}`,
          }))}
          onChange={(n) => onChange({ partsOfLine: Number(n) })}
        />
      )}
    </div>
  )
}
