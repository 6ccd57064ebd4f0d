import { type Outrigger, type OutriggerCrane, type Place, stopsOf } from '@geolabe/core'
import clsx from 'clsx'
import { RadioGroup } from 'radix-ui'
import { t } from '../language/t'
import { Button } from '../look/button'
import { VerdictMark } from '../look/verdict'
import type { OutriggerDraft, SetupDraft } from './draft'
import { OutriggerPanel } from './outrigger-panel'
import type { OutriggerState } from './outrigger-state'

/** Front to rear, left before right: as somebody walks round. */
const inOrder = (outriggers: readonly Outrigger[]) =>
  [...outriggers].sort((a, b) => {
    const [f, g] = [stopsOf(a).at(-1), stopsOf(b).at(-1)]
    return f && g ? g.x_m - f.x_m || g.y_m - f.y_m : 0
  })

/** The outriggers one after another, chosen as they lie; the next one a touch away, then the level. */
export function OutriggerSheet({
  machine,
  place,
  draft,
  states,
  chosen,
  onChoose,
  onChange,
  onLevel,
}: {
  machine: OutriggerCrane
  place: Place
  draft: SetupDraft
  states: Map<string, OutriggerState>
  chosen: string
  onChoose: (id: string) => void
  onChange: (to: Partial<SetupDraft>) => void
  onLevel: () => void
}) {
  const order = inOrder(machine.outriggers)
  const at = order.findIndex((o) => o.id === chosen)
  const outrigger = order[at]
  const next = order[at + 1]
  const own = draft.outriggers.find((o) => o.id === chosen)
  const set = (to: Partial<OutriggerDraft>) =>
    onChange({ outriggers: draft.outriggers.map((o) => (o.id === chosen ? { ...o, ...to } : o)) })
  if (!outrigger || !own) return null
  return (
    <div className="grid gap-3">
      <RadioGroup.Root aria-label={t`Outrigger`} value={chosen} onValueChange={onChoose} className="grid grid-cols-2 gap-1.5">
        {order.map((o) => (
          <RadioGroup.Item
            key={o.id}
            value={o.id}
            className={clsx(
              'flex min-h-12 items-center gap-2 rounded-lg border-2 px-3 text-left font-semibold first-letter:uppercase',
              o.id === chosen ? 'border-ink bg-accent text-on-accent' : 'border-edge bg-sheet',
            )}
          >
            <VerdictMark verdict={states.get(o.id)?.verdict ?? 'not-proven'} size={18} />
            <span className="first-letter:uppercase">{o.label}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <OutriggerPanel
        key={chosen}
        outrigger={outrigger}
        draft={own}
        state={states.get(chosen)}
        machine={machine}
        place={place}
        position={draft.position}
        onChange={set}
      />
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => (next ? onChoose(next.id) : onLevel())}>
          {next ? t`Next: ${next.label}` : t`Next: level it`}
        </Button>
        {draft.outriggers.some((o) => o.mat !== own.mat) && (
          <Button
            onClick={() => onChange({ outriggers: draft.outriggers.map((o) => ({ ...o, mat: own.mat })) })}
          >{t`The same under all`}</Button>
        )}
      </div>
    </div>
  )
}
