import { type Condition, type ProcedureFile, procedureCondition, stepsOfFile } from '@geolabe/core'
import { Plus } from 'lucide-react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { SelectField } from '../look/field'
import { firstCondition } from './draft'
import { Away, NeededFigure, put, without } from './rows'
import { WrittenField } from './written-field'

interface Props {
  value: Condition
  file: ProcedureFile
  onChange: (c: Condition) => void
}

/**
 * What has to be so: a state that is or is not something, or lies between two figures; a step done; several of these at once or one of
 * them; anything else as it is written in the file.
 */
export function ConditionForm({ value, file, onChange }: Props) {
  const several = 'all' in value ? ('all' as const) : 'any' in value ? ('any' as const) : null
  if (several)
    return (
      <Several
        joined={several}
        of={'all' in value ? value.all : 'any' in value ? value.any : []}
        file={file}
        onChange={onChange}
      />
    )
  return (
    <div className="grid gap-1">
      <One value={value} file={file} onChange={onChange} />
      <Button look="quiet" className="w-fit" onClick={() => onChange({ all: [value, firstCondition(file)] })}>
        <Plus aria-hidden="true" size={18} /> {t`Another besides`}
      </Button>
    </div>
  )
}

/** Several conditions, joined; the last but one taken out leaves that one alone. */
function Several({ joined, of, file, onChange }: { joined: 'all' | 'any'; of: Condition[] } & Omit<Props, 'value'>) {
  const join = (how: 'all' | 'any', list: Condition[]) => {
    const [only] = list
    onChange(only && list.length === 1 ? only : how === 'all' ? { all: list } : { any: list })
  }
  return (
    <fieldset className="grid gap-2 border-l-4 border-line pl-3">
      <legend className="sr-only">{t`Several conditions`}</legend>
      <SelectField
        label={t`Of these`}
        value={joined}
        options={[
          { value: 'all', label: t`every one` },
          { value: 'any', label: t`one is enough` },
        ]}
        onChange={(how) => join(how, of)}
      />
      {of.map((c, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: conditions have no name of their own, and two may be alike while they are chosen
        <div key={i} className="flex items-end gap-2">
          <div className="grow">
            <One value={c} file={file} onChange={(to) => join(joined, put(of, i, to))} />
          </div>
          {of.length > 1 && <Away label={t`Take out condition ${i + 1}`} onClick={() => join(joined, without(of, i))} />}
        </div>
      ))}
      <Button look="quiet" className="w-fit" onClick={() => join(joined, [...of, firstCondition(file)])}>
        <Plus aria-hidden="true" size={18} /> {t`Another besides`}
      </Button>
    </fieldset>
  )
}

/** One among several: itself several, the contrary of something, or plain. */
function One({ value, file, onChange }: Props) {
  if ('all' in value || 'any' in value) return <ConditionForm value={value} file={file} onChange={onChange} />
  if ('no' in value)
    return (
      <fieldset className="grid gap-1 border-l-4 border-edge pl-3">
        <legend className="font-semibold">{t`It is not so that`}</legend>
        <ConditionForm value={value.no} file={file} onChange={(no) => onChange({ no })} />
        <Button look="quiet" className="w-fit" onClick={() => onChange(value.no)}>{t`Take the “not” away`}</Button>
      </fieldset>
    )
  const plain = plainOf(value, file)
  return plain ? (
    <PlainCondition plain={plain} file={file} onChange={onChange} />
  ) : (
    <WrittenField
      label={t`What has to be so, as the file says it`}
      rows={4}
      value={value}
      schema={procedureCondition}
      onChange={onChange}
    />
  )
}

type Holds = 'is' | 'not' | 'atLeast' | 'atMost'
type Plain = { state: string; holds: Holds; to: string | number } | { done: string }

/** A condition that says one thing of one state, or that a step is done. */
function plainOf(c: Condition, file: ProcedureFile): Plain | null {
  if ('done' in c) return stepsOfFile(file).some((s) => s.id === c.done) ? { done: c.done } : null
  if (!('state' in c) || c.in !== undefined) return null
  const said = (['is', 'not', 'atLeast', 'atMost'] as const).flatMap((holds) => {
    const to = c[holds]
    return to === undefined ? [] : [{ state: c.state, holds, to }]
  })
  const [only] = said
  const state = file.states.find((s) => s.id === c.state)
  if (!state || !only || said.length > 1) return null
  return state.values ? (typeof only.to === 'string' ? only : null) : typeof only.to === 'number' ? only : null
}

/** A step done stands among the states, by this name. */
const doneName = ' done'

function PlainCondition({ plain, file, onChange }: { plain: Plain } & Omit<Props, 'value'>) {
  const steps = stepsOfFile(file)
  const stateOf = (id: string) => file.states.find((s) => s.id === id)
  const about = (id: string) => {
    const [step] = steps
    if (id === doneName) return onChange({ done: step?.id ?? '' })
    const values = stateOf(id)?.values
    onChange(values ? { state: id, is: values[0]?.id ?? '' } : { state: id, atLeast: 0 })
  }
  const what = (
    <SelectField
      label={t`What`}
      value={'done' in plain ? doneName : plain.state}
      options={[
        ...file.states.map((s) => ({ value: s.id, label: told(s.label) })),
        { value: doneName, label: t`a step of the order` },
      ]}
      onChange={about}
    />
  )
  if ('done' in plain)
    return (
      <div className="grid gap-2">
        {what}
        <SelectField
          label={t`Is done`}
          value={plain.done}
          options={steps.map((s) => ({ value: s.id, label: told(s.label) }))}
          onChange={(done) => onChange({ done })}
        />
      </div>
    )
  const { state, holds, to } = plain
  const values = stateOf(state)?.values
  const holding: { value: Holds; label: string }[] = values
    ? [
        { value: 'is', label: t`is` },
        { value: 'not', label: t`is not` },
      ]
    : [
        { value: 'atLeast', label: t`is at least` },
        { value: 'atMost', label: t`is at most` },
      ]
  return (
    <div className="grid grid-cols-[8rem_1fr] gap-2">
      <div className="col-span-2">{what}</div>
      <SelectField label={t`Is it`} value={holds} options={holding} onChange={(h) => onChange({ state, [h]: to })} />
      {values ? (
        <SelectField
          label={t`As it is said`}
          value={String(to)}
          options={values.map((v) => ({ value: v.id, label: told(v.label) }))}
          onChange={(v) => onChange({ state, [holds]: v })}
        />
      ) : (
        <NeededFigure
          key={state}
          label={stateOf(state)?.unit ? t`Figure, ${stateOf(state)?.unit ?? ''}` : t`Figure`}
          value={Number(to)}
          onChange={(v) => onChange({ state, [holds]: v })}
        />
      )}
    </div>
  )
}

/** The step that makes it true. */
export function RemedyField({
  value,
  file,
  onChange,
}: {
  value: string | undefined
  file: ProcedureFile
  onChange: (id: string) => void
}) {
  return (
    <SelectField
      label={t`What makes it so`}
      value={value ?? ''}
      options={[{ value: '', label: t`nothing named` }, ...stepsOfFile(file).map((s) => ({ value: s.id, label: told(s.label) }))]}
      onChange={onChange}
    />
  )
}
