import { hazard as hazards, type ProcedureFile, type ProcedureStep, procedureStep } from '@geolabe/core'
import { t, told } from '../language/t'
import { SelectField, TextField } from '../look/field'
import { Tick } from '../look/tick'
import { NeedsForm } from './needs-form'
import { SetsForm } from './sets-form'
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
      <NeedsForm
        title={t`What has to be so first`}
        none={t`Nothing: it may be done at any time.`}
        needs={step.needs}
        file={file}
        onChange={(needs) => onChange({ needs })}
      />
      <SetsForm title={t`What it makes so`} sets={step.sets} file={file} onChange={(sets) => onChange({ sets })} />
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

/** The whole step as it is written in the file: also what has no field above. */
function AsWritten({ step, onChange }: { step: ProcedureStep; onChange: (s: ProcedureStep) => void }) {
  return (
    <details>
      <summary className="min-h-12 cursor-pointer py-3 font-semibold">{t`The step as the file says it: time held, two people, readings, undoing`}</summary>
      <WrittenField label={t`As JSON`} rows={12} value={step} schema={procedureStep} onChange={onChange} />
    </details>
  )
}
