import type { OrderPage } from '@geolabe/contract'
import { orderChanges, type ProcedureFile, type ProcedureFinding } from '@geolabe/core'
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react'
import { useMemo, useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { orderKey } from '../api/queries'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { SelectField, TextField } from '../look/field'
import { FileButton } from '../look/file-button'
import { Refused, Sheet } from '../look/page'
import { Scrolls } from '../look/scrolls'
import { Changes } from './changes'
import {
  type At,
  asFile,
  atOf,
  faultOf,
  fromFile,
  type OrderDraft,
  type PartAt,
  partAtOf,
  stepAt,
  withMoved,
  withNewStep,
  withoutStep,
  withStep,
  withWritten,
} from './draft'
import { Parts } from './parts-form'
import { Pick } from './rows'
import { StepForm } from './step-form'
import { useFindings } from './use-findings'
import { findingWords } from './words'

interface Props {
  page: OrderPage
  name: string
  draft: OrderDraft
  setDraft: (change: (d: OrderDraft | null) => OrderDraft | null) => void
  forget: () => void
}

/** An order written anew, by its fields or as it is written in the file; beside it what is wrong with it, as it is typed. */
export function OrderEditor({ page, name, draft, setDraft, forget }: Props) {
  const [by, setBy] = useState<'fields' | 'parts' | 'json'>(draft.unread === undefined ? 'fields' : 'json')
  const [at, setAt] = useState<At>({ procedure: 0, step: 0 })
  const [part, setPart] = useState<PartAt>({ of: 'invariants', at: 0 })
  const put = (file: ProcedureFile) => setDraft((d) => d && { from: d.from, why: d.why, file })
  return (
    <div className="grid items-start gap-4 pb-8 lg:grid-cols-[1.6fr_1fr]">
      <div className="grid gap-4">
        <Choice
          label={t`Written by`}
          hideLabel
          value={by}
          onChange={setBy}
          options={[
            { value: 'fields', label: t`Step by step` },
            { value: 'parts', label: t`Rules, states, stops` },
            { value: 'json', label: t`As the file says it` },
          ]}
        />
        {by === 'json' ? (
          <AsJson machine={page.machine} name={name} draft={draft} setDraft={setDraft} />
        ) : draft.unread !== undefined ? (
          <p role="status" className="font-semibold">{t`What is typed as JSON cannot be read yet: put that right first.`}</p>
        ) : by === 'parts' ? (
          <Parts file={draft.file} at={part} setAt={setPart} put={put} />
        ) : (
          <Steps file={draft.file} at={at} setAt={setAt} put={put} />
        )}
      </div>
      <Beside
        page={page}
        draft={draft}
        setDraft={setDraft}
        forget={forget}
        onShow={(path) => {
          const [step, other] = [atOf(path), partAtOf(path)]
          if (step) setAt(step)
          else if (other) setPart(other)
          setBy(step ? 'fields' : 'parts')
        }}
      />
    </div>
  )
}

interface StepsProps {
  file: ProcedureFile
  at: At
  setAt: (at: At) => void
  put: (f: ProcedureFile) => void
}

function Steps({ file, at, setAt, put }: StepsProps) {
  const step = stepAt(file, at)
  const go = (x: { file: ProcedureFile; at: At }) => {
    put(x.file)
    setAt(x.at)
  }
  const tool = 'grid size-12 place-items-center rounded-lg border-2 border-edge disabled:opacity-40'
  const steps = file.procedures[at.procedure]?.steps ?? []
  const remove = () => {
    put(withoutStep(file, at))
    setAt({ ...at, step: Math.max(0, at.step - 1) })
  }
  return (
    <div className="grid items-start gap-4 md:grid-cols-[2fr_3fr]">
      <Sheet title={t`Its steps`} className="md:sticky md:top-4">
        <SelectField
          label={t`Order`}
          value={String(at.procedure)}
          options={file.procedures.map((p, i) => ({ value: String(i), label: told(p.label) }))}
          onChange={(i) => setAt({ procedure: Number(i), step: 0 })}
        />
        <Pick
          names={steps.map((s, k) => ({ id: s.id, name: `${k + 1}. ${told(s.label)}` }))}
          at={at.step}
          onPick={(k) => setAt({ ...at, step: k })}
        />
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className={tool}
            aria-label={t`One earlier`}
            disabled={at.step === 0}
            onClick={() => go(withMoved(file, at, -1))}
          >
            <ArrowUp aria-hidden="true" size={20} />
          </button>
          <button
            type="button"
            className={tool}
            aria-label={t`One later`}
            disabled={at.step >= steps.length - 1}
            onClick={() => go(withMoved(file, at, 1))}
          >
            <ArrowDown aria-hidden="true" size={20} />
          </button>
          <button type="button" className={tool} aria-label={t`Take this step out`} disabled={steps.length < 2} onClick={remove}>
            <Trash2 aria-hidden="true" size={20} />
          </button>
          <Button onClick={() => go(withNewStep(file, at, t`A new step`))}>
            <Plus aria-hidden="true" size={18} /> {t`A step after it`}
          </Button>
        </div>
      </Sheet>
      <Sheet title={t`This step`}>
        {step && (
          <StepForm
            key={`${at.procedure} ${step.id}`}
            step={step}
            file={file}
            onChange={(to) => put(withStep(file, at, to))}
            onWritten={(s) => put(withWritten(file, at, s))}
          />
        )}
      </Sheet>
    </div>
  )
}

function AsJson({ machine, name, draft, setDraft }: Pick<Props, 'name' | 'draft' | 'setDraft'> & { machine: string }) {
  const [error, setError] = useState('')
  // What was typed stays as it was typed: only what changes elsewhere is written out anew.
  const [typed, setTyped] = useState<{ text: string; of: ProcedureFile } | null>(null)
  const read = (text: string) => {
    try {
      const { machine: of, file } = fromFile(text)
      if (of !== machine) throw new Error(t`This is the order of “${of}”, not of ${name}.`)
      setError('')
      setTyped({ text, of: file })
      setDraft((d) => d && { from: d.from, why: d.why, file })
    } catch (e) {
      setError(e instanceof SyntaxError ? t`This is no JSON yet: ${e.message}` : (e as Error).message)
      setDraft((d) => d && { ...d, unread: text })
    }
  }
  return (
    <Sheet title={t`As the file says it`}>
      <FileButton accept=".json,application/json" onFile={(f) => void f.text().then(read)}>{t`Take a JSON file`}</FileButton>
      <div className="mt-3">
        <TextField
          label={t`The whole order`}
          rows={24}
          asWritten
          value={draft.unread ?? (typed?.of === draft.file ? typed.text : asFile(machine, draft.file))}
          onChange={read}
          {...(error ? { error } : {})}
        />
      </div>
    </Sheet>
  )
}

function Beside({ page, draft, setDraft, forget, onShow }: Omit<Props, 'name'> & { onShow: (path: string) => void }) {
  const fault = useMemo(() => (draft.unread === undefined ? faultOf(draft.file) : null), [draft])
  const changes = useMemo(() => orderChanges(page.order, draft.file), [page.order, draft.file])
  const reads = draft.unread === undefined && fault === null
  const findings = useFindings(reads && changes.length > 0 ? draft.file : null)
  const [error, setError] = useState<unknown>(null)
  const overtaken = draft.from !== page.revision
  const may = reads && changes.length > 0 && findings?.length === 0 && draft.why.trim() !== '' && !overtaken
  const send = async () => {
    setError(null)
    try {
      const { from, why, file } = draft
      const body = { id: newId(), from, why: why.trim(), file: JSON.parse(asFile(page.machine, file)) }
      await call({ method: 'POST', path: `/machines/${page.machine}/procedures`, body, key: newId() })
      void queryClient.invalidateQueries({ queryKey: orderKey(page.machine) })
      forget()
    } catch (e) {
      setError(e)
    }
  }
  return (
    <div className="grid gap-4 lg:sticky lg:top-4">
      <Sheet title={t`Looked through`}>
        {fault && (
          <p role="status" className="border-l-4 border-outside pl-3">
            <span className="font-semibold">{t`Does not read yet.`}</span> {told(fault.words)}{' '}
            {fault.path && <Button look="quiet" onClick={() => onShow(fault.path)}>{t`Show me`}</Button>}
          </p>
        )}
        {draft.unread !== undefined && <p role="status">{t`What is typed cannot be read yet.`}</p>}
        {reads && <Findings changed={changes.length > 0} findings={findings} onShow={onShow} />}
      </Sheet>
      {changes.length > 0 && (
        <Sheet title={t`What changes`}>
          <Scrolls label={t`What changes`} className="max-h-80">
            <Changes changes={changes} />
          </Scrolls>
        </Sheet>
      )}
      <Sheet title={t`Send it`}>
        <div className="grid gap-3">
          {overtaken && (
            <p role="status" className="border-l-4 border-near pl-3 font-semibold">
              {t`Another order was put in force since this was begun. Keep yours as a file, throw it away, and write it over that one.`}
            </p>
          )}
          <TextField
            label={t`Why it changes`}
            rows={2}
            value={draft.why}
            onChange={(why) => setDraft((d) => d && { ...d, why })}
          />
          <Button look="next" disabled={!may} onClick={() => void send()}>{t`Send it to the person in charge`}</Button>
          <Button look="quiet" onClick={forget}>{t`Throw these changes away`}</Button>
          <Refused error={error} />
        </div>
      </Sheet>
    </div>
  )
}

interface FoundProps {
  changed: boolean
  findings: readonly ProcedureFinding[] | null
  onShow: (path: string) => void
}

/** What is wrong, each with the shortest way that it comes to it. */
function Findings({ changed, findings, onShow }: FoundProps) {
  if (!changed) return <p>{t`Nothing is changed yet.`}</p>
  if (!findings) return <p role="status">{t`Looking through every way that it can go …`}</p>
  if (findings.length === 0)
    return (
      <p
        role="status"
        className="font-semibold"
      >{t`Nothing found: no way leads to what must never be, and none ends nowhere.`}</p>
    )
  return (
    <ul className="grid gap-3" aria-label={t`What was found`}>
      {findings.map((f) => {
        const shown = atOf(f.path) ?? partAtOf(f.path)
        return (
          <li key={`${f.code} ${f.path} ${f.words}`} className="border-l-4 border-outside pl-3">
            <p className="font-bold">{findingWords[f.code]}</p>
            <p>{told(f.words)}</p>
            {f.story.length > 0 && (
              <ol className="mt-1 list-decimal pl-6 text-[0.95rem]">
                {f.story.map((s, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: an act may come twice in a story
                  <li key={i}>{told(s)}</li>
                ))}
              </ol>
            )}
            {shown && <Button look="quiet" onClick={() => onShow(f.path)}>{t`Show me`}</Button>}
          </li>
        )
      })}
    </ul>
  )
}
