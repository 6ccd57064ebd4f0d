import { type Condition, type ProcedureFile, procedureCondition, stepsOfFile } from '@geolabe/core'
import { t, told } from '../language/t'
import { SelectField } from '../look/field'
import { WrittenField } from './written-field'

interface Props {
  value: Condition
  file: ProcedureFile
  onChange: (c: Condition) => void
}

/** What has to be so: a state that is or is not something, or a step done; anything else as it is written in the file. */
export function ConditionForm({ value, file, onChange }: Props) {
  const plain = plainOf(value, file)
  return plain ? (
    <PlainCondition {...plain} file={file} onChange={onChange} />
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

type Plain = { state: string; holds: 'is' | 'not'; to: string }

/** A condition that says one thing of one state with words for it. */
function plainOf(c: Condition, file: ProcedureFile): Plain | null {
  if (!('state' in c) || c.in !== undefined || c.atLeast !== undefined || c.atMost !== undefined) return null
  const values = file.states.find((s) => s.id === c.state)?.values
  const holds = c.is !== undefined && c.not === undefined ? 'is' : c.not !== undefined && c.is === undefined ? 'not' : null
  const to = c.is ?? c.not
  return values && holds && typeof to === 'string' ? { state: c.state, holds, to } : null
}

function PlainCondition({ state, holds, to, file, onChange }: Plain & Pick<Props, 'file' | 'onChange'>) {
  const states = file.states.filter((s) => s.values)
  const put = (p: Plain) => onChange(p.holds === 'is' ? { state: p.state, is: p.to } : { state: p.state, not: p.to })
  const valuesOf = (id: string) => states.find((s) => s.id === id)?.values ?? []
  return (
    <div className="grid grid-cols-[3fr_1.3fr_2fr] gap-2">
      <SelectField
        label={t`What`}
        value={state}
        options={states.map((s) => ({ value: s.id, label: told(s.label) }))}
        onChange={(id) => put({ state: id, holds, to: valuesOf(id)[0]?.id ?? '' })}
      />
      <SelectField
        label={t`Has to`}
        value={holds}
        options={[
          { value: 'is', label: t`be` },
          { value: 'not', label: t`not be` },
        ]}
        onChange={(h) => put({ state, holds: h, to })}
      />
      <SelectField
        label={t`As it is said`}
        value={to}
        options={valuesOf(state).map((v) => ({ value: v.id, label: told(v.label) }))}
        onChange={(v) => put({ state, holds, to: v })}
      />
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
