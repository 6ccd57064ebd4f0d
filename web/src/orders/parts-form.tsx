import {
  losing,
  type OrderPartName,
  type Override,
  orderParts,
  type Procedure,
  type ProcedureFile,
  statesOfRule,
  stepsOfFile,
  unknown,
} from '@geolabe/core'
import { Plus, Trash2 } from 'lucide-react'
import type { ReactNode } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { PlainField, SelectField, TextField } from '../look/field'
import { Sheet } from '../look/page'
import { Tick } from '../look/tick'
import { ConditionForm } from './condition-form'
import { firstCondition, freeName, orderPartNames, type PartAt, withNewPart, withoutPart, withPart } from './draft'
import { NeedsForm } from './needs-form'
import { Away, Chosen, Lines, NeededFigure, Pick, put, Rows, without } from './rows'
import { SetsForm } from './sets-form'
import { losingWords, partLists } from './words'
import { WrittenField } from './written-field'

type Part<K extends OrderPartName> = ProcedureFile[K][number]
interface PartProps<K extends OrderPartName> {
  value: Part<K>
  file: ProcedureFile
  onChange: (to: Part<K>) => void
}

/** How one of a list is called: a rule by why it is one, and of which of several alike it speaks. */
function nameOf(x: Part<OrderPartName>, { states }: ProcedureFile): string {
  if (!('because' in x)) return told(x.label)
  const members = statesOfRule(x).flatMap((id) => states.find((s) => s.id === id)?.member?.label ?? [])
  const [only, ...more] = new Set(members)
  return only === undefined || more.length > 0 ? told(x.because) : `${told(x.because)} (${told(only)})`
}

/** What a file has besides its steps: rules, states, stops, overrides, and each order as a whole. */
export function Parts({
  file,
  at,
  setAt,
  put: onFile,
}: {
  file: ProcedureFile
  at: PartAt
  setAt: (at: PartAt) => void
  put: (f: ProcedureFile) => void
}) {
  const add = () => {
    const more = withNewPart(file, at.of, t`New`)
    onFile(more.file)
    setAt(more.at)
  }
  const remove = () => {
    onFile(withoutPart(file, at))
    setAt({ ...at, at: Math.max(0, at.at - 1) })
  }
  const list = file[at.of]
  const one = list[at.at]
  return (
    <div className="grid items-start gap-4 md:grid-cols-[2fr_3fr]">
      <Sheet title={t`Besides its steps`} className="md:sticky md:top-4">
        <SelectField
          label={t`Which`}
          value={at.of}
          options={orderPartNames.map((p) => ({ value: p, label: partLists[p].many }))}
          onChange={(of) => setAt({ of, at: 0 })}
        />
        <Pick names={list.map((x) => ({ id: x.id, name: nameOf(x, file) }))} at={at.at} onPick={(i) => setAt({ ...at, at: i })} />
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="grid size-12 place-items-center rounded-lg border-2 border-edge disabled:opacity-40"
            aria-label={partLists[at.of].out}
            disabled={!one || (at.of === 'procedures' && list.length < 2)}
            onClick={remove}
          >
            <Trash2 aria-hidden="true" size={20} />
          </button>
          <Button onClick={add}>
            <Plus aria-hidden="true" size={18} /> {partLists[at.of].more}
          </Button>
        </div>
      </Sheet>
      <Sheet title={partLists[at.of].one}>
        {one ? (
          <PartForm key={`${at.of} ${one.id}`} at={at} file={file} onFile={onFile} />
        ) : (
          <p className="text-quiet">{t`There is none.`}</p>
        )}
      </Sheet>
    </div>
  )
}

const forms: { [K in OrderPartName]: (p: PartProps<K>) => ReactNode } = {
  invariants: RuleForm,
  states: StateForm,
  stops: StopForm,
  overrides: OverrideForm,
  procedures: OrderForm,
}

function PartForm<K extends OrderPartName>({
  at,
  file,
  onFile,
}: {
  at: { of: K; at: number }
  file: ProcedureFile
  onFile: (f: ProcedureFile) => void
}) {
  const Form: (p: PartProps<K>) => ReactNode = forms[at.of]
  const value: Part<K> | undefined = file[at.of][at.at]
  if (!value) return null
  const onChange = (to: Part<K>) => onFile(withPart(file, at.of, at.at, to))
  return (
    <div className="grid gap-4">
      <Form value={value} file={file} onChange={onChange} />
      <details>
        <summary className="min-h-12 cursor-pointer py-3 font-semibold">{t`As the file says it, whole`}</summary>
        <WrittenField label={t`As JSON`} rows={12} value={value} schema={orderParts[at.of]} onChange={onChange} />
      </details>
    </div>
  )
}

/** What must never be, or not while certain steps are done. */
function RuleForm({ value, file, onChange }: PartProps<'invariants'>) {
  const doing = value.doing ?? []
  const during = (to: readonly string[]) => {
    const { doing: _, ...rest } = value
    onChange(to.length === 0 ? rest : { ...rest, doing: [...to] })
  }
  return (
    <>
      <TextField
        label={t`Why it must never be`}
        rows={2}
        value={value.because}
        onChange={(because) => onChange({ ...value, because })}
      />
      <section aria-label={t`What must never be`} className="grid gap-2">
        <h3 className="font-bold">{t`What must never be`}</h3>
        <ConditionForm value={value.never} file={file} onChange={(never) => onChange({ ...value, never })} />
      </section>
      <Chosen
        title={t`Only while these steps are done`}
        none={t`No step: it must not come to be by any.`}
        each={t`Step`}
        chosen={doing}
        options={stepsOfFile(file).map((s) => ({ value: s.id, label: told(s.label) }))}
        onChange={during}
      />
    </>
  )
}

/** What can be so or otherwise: as it is said, what it is to begin with, what makes it unknown again. */
function StateForm({ value, onChange }: PartProps<'states'>) {
  const values = value.values
  return (
    <>
      <TextField label={t`What it is of`} value={value.label} onChange={(label) => onChange({ ...value, label })} />
      {values && (
        <>
          <Rows
            title={t`What it can be`}
            add={t`One more`}
            onAdd={() => onChange({ ...value, values: [...values, { id: freeName('own', values), label: '' }] })}
          >
            {values.map((v, i) => (
              <div key={v.id} className="flex items-end gap-2">
                <div className="grow">
                  <TextField
                    label={t`It can be ${i + 1}`}
                    value={v.label}
                    onChange={(label) => onChange({ ...value, values: put(values, i, { ...v, label }) })}
                    {...(v.label === '' ? { error: t`Write it, or take it out.` } : {})}
                  />
                </div>
                {values.length > 2 && (
                  <Away
                    label={t`Take out: ${v.label}`}
                    onClick={() =>
                      onChange({
                        ...value,
                        values: without(values, i),
                        initial: value.initial === v.id ? unknown : value.initial,
                      })
                    }
                  />
                )}
              </div>
            ))}
          </Rows>
          <SelectField
            label={t`As a shift begins`}
            value={String(value.initial)}
            options={[{ value: unknown, label: t`not known` }, ...values.map((v) => ({ value: v.id, label: told(v.label) }))]}
            onChange={(initial) => onChange({ ...value, initial })}
          />
        </>
      )}
      <fieldset>
        <legend className="mb-1 text-[0.95rem] font-semibold">{t`Not known any more after`}</legend>
        <div className="grid grid-cols-2 gap-2">
          {losing.options.map((l) => (
            <Tick
              key={l}
              checked={value.lost.includes(l)}
              onChange={(on) =>
                onChange({ ...value, lost: losing.options.filter((x) => (x === l ? on : value.lost.includes(x))) })
              }
            >
              {losingWords[l]}
            </Tick>
          ))}
        </div>
      </fieldset>
      <PlainField
        label={t`Not known any more after seconds`}
        value={value.lostAfter_s ?? null}
        onChange={(s) => {
          const { lostAfter_s: _, ...rest } = value
          onChange(s === null ? rest : { ...rest, lostAfter_s: s })
        }}
      />
    </>
  )
}

function StopForm({ value, file, onChange }: PartProps<'stops'>) {
  return (
    <>
      <TextField label={t`The stop`} value={value.label} onChange={(label) => onChange({ ...value, label })} />
      <SetsForm title={t`What it kills`} sets={value.kills} file={file} onChange={(kills) => onChange({ ...value, kills })} />
      <Lines
        title={t`What still moves`}
        each={t`Moves`}
        least={1}
        lines={value.stillMoves}
        onChange={(stillMoves) => onChange({ ...value, stillMoves })}
      />
      <Lines
        title={t`How it is reset, in this order`}
        each={t`Reset`}
        least={1}
        lines={value.reset}
        onChange={(reset) => onChange({ ...value, reset })}
      />
      <Chosen
        title={t`Not known after it`}
        each={t`State`}
        chosen={value.unknownAfter}
        options={file.states.map((s) => ({ value: s.id, label: told(s.label) }))}
        onChange={(unknownAfter) => onChange({ ...value, unknownAfter })}
      />
      <Tick checked={value.relink} onChange={(relink) => onChange({ ...value, relink })}>
        {t`A radio has to be linked and tried again`}
      </Tick>
    </>
  )
}

function OverrideForm({ value, file, onChange }: PartProps<'overrides'>) {
  const needs = [...new Map(stepsOfFile(file).flatMap((s) => s.needs.map((n) => [n.id, n.because]))).entries()]
  const follow = (to: Partial<Override['follow']>) => onChange({ ...value, follow: { ...value.follow, ...to } })
  return (
    <>
      <TextField label={t`The override`} value={value.label} onChange={(label) => onChange({ ...value, label })} />
      <TextField
        label={t`What for, and for nothing else`}
        value={value.purpose}
        onChange={(purpose) => onChange({ ...value, purpose })}
      />
      <NeededFigure
        label={t`Held for at most, seconds`}
        value={value.most_s}
        onChange={(most_s) => onChange({ ...value, most_s })}
      />
      <SelectField
        label={t`What may hang`}
        value={value.load}
        options={[
          { value: 'none', label: t`nothing` },
          { value: 'as-is', label: t`what hangs, to bring it back in` },
        ]}
        onChange={(load) => onChange({ ...value, load })}
      />
      <Chosen
        title={t`The needs that it may pass`}
        each={t`Need`}
        chosen={value.waits}
        options={needs.map(([need, because]) => ({ value: need, label: told(because) }))}
        onChange={(waits) => onChange({ ...value, waits })}
      />
      <NeedsForm
        title={t`What has to be so first`}
        none={t`Nothing: it may be used at any time.`}
        needs={value.needs}
        file={file}
        onChange={(to) => onChange({ ...value, needs: to })}
      />
      <TextField label={t`What must follow`} value={value.follow.what} onChange={(what) => follow({ what })} />
      <SelectField
        label={t`By whom`}
        value={value.follow.by}
        options={[
          { value: 'person-in-charge', label: t`the person in charge` },
          { value: 'fitter', label: t`a fitter` },
        ]}
        onChange={(by) => follow({ by })}
      />
      <Tick checked={value.stops} onChange={(stops) => onChange({ ...value, stops })}>
        {t`Its use takes the machine out of service`}
      </Tick>
    </>
  )
}

function OrderForm({ value, file, onChange }: PartProps<'procedures'>) {
  const only = (field: 'when' | 'requiredIf', title: string) => {
    const { [field]: given, ...rest } = value
    return (
      <section aria-label={title} className="grid gap-2">
        <Tick
          checked={given !== undefined}
          onChange={(on) => onChange((on ? { ...rest, [field]: firstCondition(file) } : rest) as Procedure)}
        >
          {title}
        </Tick>
        {given && <ConditionForm value={given} file={file} onChange={(c) => onChange({ ...value, [field]: c })} />}
      </section>
    )
  }
  return (
    <>
      <TextField label={t`The order`} value={value.label} onChange={(label) => onChange({ ...value, label })} />
      <SelectField
        label={t`Shown at`}
        value={value.station}
        options={[
          { value: 'setup', label: t`Set up` },
          { value: 'lift', label: t`Lift` },
          { value: 'stow', label: t`Stow` },
        ]}
        onChange={(station) => onChange({ ...value, station })}
      />
      <Tick checked={value.required} onChange={(required) => onChange({ ...value, required })}>
        {t`The station waits for its goal`}
      </Tick>
      {only('requiredIf', t`The station waits for it only if`)}
      {only('when', t`It is offered only if`)}
      <NeedsForm
        title={t`What has to be so before its first step`}
        none={t`Nothing: it may be begun at any time.`}
        needs={value.start}
        file={file}
        onChange={(start) => onChange({ ...value, start })}
      />
      <Rows
        title={t`Its goal`}
        add={t`One more`}
        onAdd={() => onChange({ ...value, goal: [...value.goal, firstCondition(file)] })}
      >
        {value.goal.map((g, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: goals have no name of their own
          <div key={i} className="flex items-end gap-2">
            <div className="grow">
              <ConditionForm value={g} file={file} onChange={(c) => onChange({ ...value, goal: put(value.goal, i, c) })} />
            </div>
            {value.goal.length > 1 && (
              <Away label={t`Take it out`} onClick={() => onChange({ ...value, goal: without(value.goal, i) })} />
            )}
          </div>
        ))}
      </Rows>
    </>
  )
}
