import { Plus, X } from 'lucide-react'
import { t, told } from '../language/t'
import { choiceOf, wordsOf } from '../units/field-names'
import { type Fields, Figure, Frame, faultAt, Numbers } from './figure'
import { ModelPicker, TablePicker } from './pickers'
import { blankOf, branchesOf, isNumber, isObj, type Json, mayBeNull, type Obj, type Schema, tagOf, tagsIn } from './schema'

/** One input of a calculator, whatever it is: made from the same schema that checks it. */
export function Editor(p: Fields) {
  const { schema, value } = p
  if (p.name === 'table' || p.name === 'chart') return <TablePicker {...p} />
  if (p.name === 'machine' && schema.properties?.format) return <ModelPicker {...p} />
  if (schema.const !== undefined) return null
  if (isNumber(schema) || (mayBeNull(schema) && branchesOf(schema).every(isNumber))) return <Figure {...p} />
  const branches = branchesOf(schema)
  if (branches.length === 1) return <Editor {...p} schema={branches[0] as Schema} />
  if (branches.length > 1) return <Union {...p} />
  if (schema.enum) return <Pick {...p} choices={schema.enum.map(String)} />
  if (schema.type === 'boolean') return <Tick {...p} />
  if (schema.type === 'array') return isNumber(schema.items ?? {}) ? <Numbers {...p} /> : <Rows {...p} />
  if (schema.type === 'object') return <Group {...p} value={isObj(value) ? value : {}} />
  return <Text {...p} />
}

function Text(p: Fields) {
  return (
    <Frame label={wordsOf(p.name)} fault={faultAt(p)}>
      {(id) => (
        <input
          id={id}
          className="field"
          autoComplete="off"
          type={p.name === 'date' ? 'date' : 'text'}
          value={typeof p.value === 'string' ? p.value : ''}
          onChange={(e) => p.onChange(e.target.value)}
        />
      )}
    </Frame>
  )
}

function Pick(p: Fields & { choices: string[] }) {
  return (
    <Frame label={wordsOf(p.name)} fault={faultAt(p)}>
      {(id) => (
        <select id={id} className="field" value={String(p.value ?? '')} onChange={(e) => p.onChange(e.target.value)}>
          {p.choices.map((c) => (
            <option key={c} value={c}>
              {choiceOf(c)}
            </option>
          ))}
        </select>
      )}
    </Frame>
  )
}

function Tick(p: Fields) {
  return (
    <label className="flex min-h-12 items-center gap-3 font-semibold">
      <input
        type="checkbox"
        className="size-6 accent-[var(--ink)]"
        checked={p.value === true}
        onChange={(e) => p.onChange(e.target.checked)}
      />
      {wordsOf(p.name)}
    </label>
  )
}

function Group(p: Omit<Fields, 'value'> & { value: Obj }) {
  const { schema, value } = p
  const required = new Set(schema.required ?? [])
  const keys = Object.keys(schema.properties ?? {}).filter((k) => schema.properties?.[k]?.const === undefined)
  const there = keys.filter((k) => required.has(k) || value[k] !== undefined)
  const more = keys.filter((k) => !there.includes(k))
  const at = (k: string) => (p.path === '' ? k : `${p.path}.${k}`)
  const set = (k: string, v: Json | undefined) => {
    const next: Obj = { ...value, [k]: v }
    if (v === undefined && !required.has(k)) delete next[k]
    p.onChange(next)
  }
  const body = (
    <>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(11.5rem,1fr))] items-start gap-x-3 gap-y-2.5">
        {there.map((k) => {
          const s = schema.properties?.[k] as Schema
          const flat =
            (isNumber(s) ||
              s.enum ||
              s.type === 'string' ||
              s.type === 'boolean' ||
              (mayBeNull(s) && branchesOf(s).every(isNumber))) &&
            k !== 'table' &&
            k !== 'chart'
          return (
            <div key={k} className={flat ? 'flex min-w-0 items-end gap-1 *:first:grow' : 'col-span-full min-w-0'}>
              <Editor schema={s} value={value[k]} onChange={(v) => set(k, v)} path={at(k)} name={k} fault={p.fault} />
              {!required.has(k) && <LeaveOut label={wordsOf(k)} onClick={() => set(k, undefined)} words={!flat} />}
            </div>
          )
        })}
      </div>
      {more.length > 0 && (
        <p className="mt-1.5 flex flex-wrap gap-x-4">
          {more.map((k) => (
            <button
              key={k}
              type="button"
              className="inline-flex min-h-12 items-center gap-1 text-[0.92rem] font-semibold underline decoration-edge decoration-2 underline-offset-4"
              onClick={() => set(k, blankOf(schema.properties?.[k] ?? {}))}
            >
              <Plus size={16} aria-hidden="true" />
              {wordsOf(k)}
            </button>
          ))}
        </p>
      )}
    </>
  )
  if (p.path === '' || /\.\d+$/.test(p.path)) return <div className="min-w-0">{body}</div>
  return (
    <fieldset className="rounded-lg border border-line p-2.5">
      <legend className="px-1 text-[0.92rem] font-bold">{wordsOf(p.name)}</legend>
      {body}
    </fieldset>
  )
}

function LeaveOut({ label, onClick, words }: { label: string; onClick: () => void; words: boolean }) {
  return (
    <button
      type="button"
      className={
        words
          ? 'inline-flex min-h-12 items-center gap-1 text-[0.92rem] font-semibold underline decoration-edge decoration-2 underline-offset-4'
          : 'flex size-12 shrink-0 items-center justify-center rounded-lg text-quiet hover:text-ink'
      }
      aria-label={t`Leave out: ${label}`}
      onClick={onClick}
    >
      <X size={16} aria-hidden="true" />
      {words && t`Leave out ${label.toLowerCase()}`}
    </button>
  )
}

function Rows(p: Fields) {
  const list = Array.isArray(p.value) ? p.value : []
  const set = (i: number, v: Json | undefined) => p.onChange(list.map((x, j) => (j === i ? (v ?? null) : x)))
  const label = wordsOf(p.name)
  return (
    <fieldset className="rounded-lg border border-line p-2.5">
      <legend className="px-1 text-[0.92rem] font-bold">{label}</legend>
      {p.fault?.path === p.path && <p className="mb-2 font-semibold text-outside">{told(p.fault.message)}</p>}
      <ol className="grid gap-2.5">
        {list.map((v, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are only added at the end and taken off at their place
            key={i}
            className="grid grid-cols-[1fr_auto] items-start gap-2 border-b border-line pb-2.5 last:border-b-0 last:pb-0"
          >
            <Editor
              schema={p.schema.items ?? {}}
              value={v}
              onChange={(x) => set(i, x)}
              path={`${p.path}.${i}`}
              name={p.name}
              fault={p.fault}
            />
            <button
              type="button"
              className="flex size-12 items-center justify-center rounded-lg border-2 border-edge"
              aria-label={t`Take off ${label.toLowerCase()} ${i + 1}`}
              onClick={() => p.onChange(list.filter((_, j) => j !== i))}
            >
              <X size={18} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="mt-1 inline-flex min-h-12 items-center gap-1 font-semibold underline decoration-edge decoration-2 underline-offset-4"
        onClick={() => p.onChange([...list, nextRow(p.schema.items ?? {}, list)])}
      >
        <Plus size={16} aria-hidden="true" /> {t`Add to ${label.toLowerCase()}`}
      </button>
    </fieldset>
  )
}

/** A new row like the last one, under a name of its own. */
function nextRow(schema: Schema, list: Json[]): Json {
  const last = list[list.length - 1]
  if (!isObj(last)) return blankOf(schema)
  const copy: Obj = { ...(last as Obj) }
  return 'id' in copy ? { ...copy, id: String(list.length + 1) } : copy
}

function Union(p: Fields) {
  const branches = branchesOf(p.schema)
  const tag = tagOf(branches)
  if (tag) {
    const value = isObj(p.value) ? p.value : {}
    const now = String(value[tag] ?? tagsIn(branches[0] as Schema, tag)[0])
    const branch = branches.find((b) => tagsIn(b, tag).includes(now)) ?? (branches[0] as Schema)
    const turn = (to: string) => {
      const next = branches.find((b) => tagsIn(b, tag).includes(to)) as Schema
      const kept = Object.fromEntries(Object.entries(value).filter(([k]) => next.properties?.[k]))
      p.onChange({ ...(blankOf(next) as Obj), ...kept, [tag]: to })
    }
    const { [tag]: _tag, ...rest } = branch.properties ?? {}
    return (
      <div className="grid gap-2.5">
        <Pick
          {...p}
          name={tag}
          path={`${p.path}.${tag}`}
          value={now}
          onChange={(v) => turn(String(v))}
          choices={branches.flatMap((b) => tagsIn(b, tag))}
        />
        <Group
          {...p}
          schema={{ ...branch, properties: rest, required: (branch.required ?? []).filter((k) => k !== tag) }}
          value={value}
          onChange={(v) => p.onChange(isObj(v) ? { ...v, [tag]: now } : v)}
        />
      </div>
    )
  }
  const fits = (b: Schema) =>
    b.const !== undefined ? p.value === b.const : b.type === 'object' ? isObj(p.value) : typeof p.value === b.type
  const i = Math.max(0, branches.findIndex(fits))
  const branch = branches[i] as Schema
  const name = (b: Schema) =>
    b.const !== undefined
      ? choiceOf(String(b.const))
      : b.type === 'object'
        ? Object.keys(b.properties ?? {})
            .map(wordsOf)
            .join(', ')
        : t`Figure`
  return (
    <div className="grid gap-2.5">
      <Frame label={wordsOf(p.name)} fault={null}>
        {(id) => (
          <select
            id={id}
            className="field"
            value={i}
            onChange={(e) => p.onChange(blankOf(branches[Number(e.target.value)] as Schema))}
          >
            {branches.map((b, j) => (
              <option key={name(b)} value={j}>
                {name(b)}
              </option>
            ))}
          </select>
        )}
      </Frame>
      {branch.const === undefined && <Editor {...p} schema={branch} />}
    </div>
  )
}
