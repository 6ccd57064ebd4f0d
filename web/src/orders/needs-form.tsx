import type { Need, ProcedureFile } from '@geolabe/core'
import { t } from '../language/t'
import { TextField } from '../look/field'
import { ConditionForm, RemedyField } from './condition-form'
import { newNeed } from './draft'
import { Away, put, Rows, without } from './rows'

/** What has to be so, each with what breaks otherwise and what makes it so. */
export function NeedsForm({
  title,
  none,
  needs,
  file,
  onChange,
}: {
  title: string
  none: string
  needs: readonly Need[]
  file: ProcedureFile
  onChange: (to: Need[]) => void
}) {
  const change = (i: number, n: Need, to: Partial<Need>) => onChange(put(needs, i, { ...n, ...to }))
  return (
    <Rows title={title} add={t`One more need`} onAdd={() => onChange([...needs, newNeed(file, needs)])}>
      {needs.length === 0 && <p className="text-quiet">{none}</p>}
      {needs.map((n, i) => (
        <div key={n.id} className="grid gap-2 border-l-4 border-edge pl-3">
          <div className="flex items-end gap-2">
            <div className="grow">
              <ConditionForm value={n.if} file={file} onChange={(c) => change(i, n, { if: c })} />
            </div>
            <Away label={t`Take this need out: ${n.because}`} onClick={() => onChange(without(needs, i))} />
          </div>
          <TextField
            label={t`Because otherwise`}
            value={n.because}
            onChange={(because) => change(i, n, { because })}
            {...(n.because === '' ? { error: t`Say what breaks when it is not so.` } : {})}
          />
          <RemedyField value={n.remedy} file={file} onChange={(id) => change(i, n, { remedy: id === '' ? undefined : id })} />
        </div>
      ))}
    </Rows>
  )
}
