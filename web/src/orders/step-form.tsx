import { hazard as hazards, type Need, type ProcedureFile, type ProcedureStep, procedureStep, unknown } from '@geolabe/core'
import { Plus, Trash2 } from 'lucide-react'
import type { ReactNode } from 'react'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { SelectField, TextField } from '../look/field'
import { Tick } from '../look/tick'
import { ConditionForm, RemedyField } from './condition-form'
import { newNeed } from './draft'
import { hazardWords } from './words'
import { WrittenField } from './written-field'

interface Props {
  step: ProcedureStep
  file: ProcedureFile
  onChange: (to: Partial<ProcedureStep>) => void
}

interface Whole extends Props {
  /** The step written as a whole: what it no longer says is gone. */
  onWritten: (s: ProcedureStep) => void
}

/** One step: what is done, what has to be so first, what it makes so. What has no field here is there as it is written. */
export function StepForm({ step, file, onChange, onWritten }: Whole) {
  // What may be left out is left out where it is empty.
  const words = (field: 'detail' | 'caution') => (v: string) => onChange({ [field]: v === '' ? undefined : v })
  return (
    <div className="grid gap-4">
      <TextField label={t`What is done`} value={step.label} onChange={(label) => onChange({ label })} />
      <TextField label={t`How`} rows={2} value={step.detail ?? ''} onChange={words('detail')} />
      <TextField label={t`What goes wrong otherwise`} rows={2} value={step.caution ?? ''} onChange={words('caution')} />
      {file.posts.length > 0 && (
        <SelectField
          label={t`Where whoever does it stands`}
          value={step.at ?? ''}
          options={[{ value: '', label: t`not said` }, ...file.posts.map((p) => ({ value: p.id, label: told(p.label) }))]}
          onChange={(at) => onChange({ at: at === '' ? undefined : at })}
        />
      )}
      <Hazards step={step} onChange={onChange} />
      <Needs step={step} file={file} onChange={onChange} />
      <Makes step={step} file={file} onChange={onChange} />
      <AsWritten step={step} onChange={onWritten} />
    </div>
  )
}

function Hazards({ step, onChange }: Pick<Props, 'step' | 'onChange'>) {
  return (
    <fieldset>
      <legend className="mb-1 text-[0.95rem] font-semibold">{t`What could happen with it`}</legend>
      <div className="grid grid-cols-2 gap-2">
        {hazards.options.map((h) => (
          <Tick
            key={h}
            checked={step.hazards.includes(h)}
            onChange={(on) => onChange({ hazards: hazards.options.filter((x) => (x === h ? on : step.hazards.includes(x))) })}
          >
            {hazardWords[h]}
          </Tick>
        ))}
      </div>
    </fieldset>
  )
}

/** A part of the form with its rows, and a key for one more. */
function Rows({ title, add, onAdd, children }: { title: string; add: string; onAdd: () => void; children: ReactNode }) {
  return (
    <section aria-label={title} className="grid gap-3">
      <h3 className="font-bold">{title}</h3>
      {children}
      <Button className="w-fit" onClick={onAdd}>
        <Plus aria-hidden="true" size={18} /> {add}
      </Button>
    </section>
  )
}

function Away({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button type="button" aria-label={label} className="grid size-12 shrink-0 place-items-center rounded-lg" onClick={onClick}>
      <Trash2 aria-hidden="true" size={20} />
    </button>
  )
}

function Needs({ step, file, onChange }: Props) {
  const put = (i: number, to: Partial<Need>) => onChange({ needs: step.needs.map((n, k) => (k === i ? { ...n, ...to } : n)) })
  return (
    <Rows
      title={t`What has to be so first`}
      add={t`One more need`}
      onAdd={() => onChange({ needs: [...step.needs, newNeed(file, step)] })}
    >
      {step.needs.length === 0 && <p className="text-quiet">{t`Nothing: it may be done at any time.`}</p>}
      {step.needs.map((n, i) => (
        <div key={n.id} className="grid gap-2 border-l-4 border-edge pl-3">
          <div className="flex items-end gap-2">
            <div className="grow">
              <ConditionForm value={n.if} file={file} onChange={(c) => put(i, { if: c })} />
            </div>
            <Away
              label={t`Take this need out: ${n.because}`}
              onClick={() => onChange({ needs: step.needs.filter((_, k) => k !== i) })}
            />
          </div>
          <TextField
            label={t`Because otherwise`}
            value={n.because}
            onChange={(because) => put(i, { because })}
            {...(n.because === '' ? { error: t`Say what breaks when it is not so.` } : {})}
          />
          <RemedyField value={n.remedy} file={file} onChange={(id) => put(i, { remedy: id === '' ? undefined : id })} />
        </div>
      ))}
    </Rows>
  )
}

function Makes({ step, file, onChange }: Props) {
  const states = file.states.filter((s) => s.values && s.source === 'person')
  const valuesOf = (id: string) => [
    ...(states.find((s) => s.id === id)?.values ?? []),
    { id: unknown, label: t`not known any more` },
  ]
  const put = (i: number, state: string, to: string) => onChange({ sets: step.sets.map((x, k) => (k === i ? { state, to } : x)) })
  const first = states[0]
  return (
    <Rows
      title={t`What it makes so`}
      add={t`One more`}
      onAdd={() => first && onChange({ sets: [...step.sets, { state: first.id, to: first.values?.[0]?.id ?? unknown }] })}
    >
      {step.sets.map((x, i) =>
        typeof x.to === 'string' && states.some((s) => s.id === x.state) ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name of their own, and a state may stand twice while it is chosen
          <div key={i} className="flex items-end gap-2">
            <div className="grid grow grid-cols-2 gap-2">
              <SelectField
                label={t`What`}
                value={x.state}
                options={states.map((s) => ({ value: s.id, label: told(s.label) }))}
                onChange={(id) => put(i, id, valuesOf(id)[0]?.id ?? unknown)}
              />
              <SelectField
                label={t`Is then`}
                value={x.to}
                options={valuesOf(x.state).map((v) => ({ value: v.id, label: told(v.label) }))}
                onChange={(to) => put(i, x.state, to)}
              />
            </div>
            <Away label={t`Take it out`} onClick={() => onChange({ sets: step.sets.filter((_, k) => k !== i) })} />
          </div>
        ) : (
          <p key={x.state} className="figure text-[0.95rem]">
            {JSON.stringify(x)}
          </p>
        ),
      )}
    </Rows>
  )
}

/** The whole step as it is written in the file: also what has no field above. */
function AsWritten({ step, onChange }: { step: ProcedureStep; onChange: (s: ProcedureStep) => void }) {
  return (
    <details>
      <summary className="min-h-12 cursor-pointer py-3 font-semibold">{t`The step as the file says it: time held, two people, readings, undoing`}</summary>
      <WrittenField label={t`As JSON`} rows={12} value={step} schema={procedureStep} onChange={onChange} />
    </details>
  )
}
