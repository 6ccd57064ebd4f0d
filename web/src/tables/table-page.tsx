import { csvToTable, type Me, reviseRequest, type TableFile, tableToCsv } from '@geolabe/contract'
import {
  axesTitle,
  changesBetween,
  type MachineModel,
  oddCells,
  parseOrRefuse,
  type RatingTable,
  Refusal,
  ratingTable,
  sameAxes,
  withCell,
} from '@geolabe/core'
import { lazy, Suspense, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { queryClient } from '../api/me'
import { outbox } from '../api/outbox'
import { useTable } from '../api/queries'
import { rich } from '../language/rich'
import { t, told } from '../language/t'
import { Button } from '../look/button'
import { SelectField } from '../look/field'
import { FileButton } from '../look/file-button'
import { Form, TextEntry, useEntry } from '../look/form'
import { ActionBar, Loaded, Refused, Sheet, Title } from '../look/page'
import { day } from '../look/when'
import { unitOf, usePreferences, useSay } from '../units/units'
import { CellGrid } from './cell-grid'

const RatingChart = lazy(() => import('./rating-chart').then((m) => ({ default: m.RatingChart })))

/** One table: drawn over what physics allows, its cells, what is odd about them, its revisions. */
export function TablePage({ me }: { me: Me }) {
  const { id = '' } = useParams()
  return <Loaded query={useTable(id)}>{(file) => <Page key={`${id} ${file.table.revision}`} me={me} file={file} />}</Loaded>
}

function check(model: MachineModel | null, table: RatingTable): { found: ReturnType<typeof oddCells> | null; why: string } {
  if (!model)
    return { found: null, why: t`Nothing is known of this machine’s geometry: the table is not checked against physics.` }
  try {
    return { found: oddCells(model, table), why: '' }
  } catch (e) {
    if (e instanceof Refusal) return { found: null, why: e.message }
    throw e
  }
}

/** A whole table from its own format, for the one that is there. @throws Refusal */
function sameTable(text: string, now: RatingTable): RatingTable {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    throw new Refusal('not-json', t`This file is not readable JSON.`)
  }
  const table = parseOrRefuse(ratingTable, raw)
  if (table.id !== now.id || table.machine !== now.machine || !sameAxes(table.axes, now.axes)) {
    throw new Refusal(
      'other-table',
      t`This file is ${table.title}, by ${axesTitle(table.axes).toLowerCase()}; it does not belong here.`,
      'id',
    )
  }
  return table
}

function save(name: string, text: string, type: string) {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(new Blob([text], { type }))
  a.download = name
  a.click()
  URL.revokeObjectURL(a.href)
}

function Page({ me, file }: { me: Me; file: TableFile }) {
  const say = useSay()
  const { units } = usePreferences()
  const [draft, setDraft] = useState<RatingTable | null>(null)
  const [config, setConfig] = useState(file.table.configurations[0]?.id ?? '')
  const form = useEntry(reviseRequest.pick({ why: true }), { why: '' })
  const [error, setError] = useState<unknown>(null)
  const table = draft ?? file.table
  const grids = table.configurations
  const grid = grids.find((g) => g.id === config) ?? grids[0]
  const { found, why: unchecked } = useMemo(() => check(file.model, table), [file.model, table])
  const against = draft ? file.table : file.before
  const changes = useMemo(() => (against ? changesBetween(against, table) : []), [against, table])
  const may = me.roles.includes('person-in-charge') || me.roles.includes('administrator')
  const newest = file.revisions[0]
  const mayCheck = me.roles.includes('person-in-charge') && newest && newest.checkedBy === null && newest.enteredBy !== me.name
  if (!grid) return null
  const refresh = (f: TableFile) => {
    queryClient.setQueryData(['tables', f.table.id], f)
    void queryClient.invalidateQueries({ queryKey: ['tables'] })
  }
  const enter = form.handleSubmit(async ({ why }) => {
    setError(null)
    try {
      refresh(await outbox.send<TableFile>('revise-table', { table: table.id }, { from: file.table.revision, table, why }))
    } catch (e) {
      setError(e)
    }
  })
  const checked = async () => {
    setError(null)
    try {
      refresh(await outbox.send<TableFile>('check-table', { table: table.id }, { revision: file.table.revision }))
    } catch (e) {
      setError(e)
    }
  }
  const take = async (f: File) => {
    setError(null)
    try {
      const text = await f.text()
      setDraft(f.name.endsWith('.json') ? sameTable(text, file.table) : csvToTable(text, file.table))
    } catch (e) {
      setError(e)
    }
  }
  const odd = found?.findings ?? []
  const marked = new Set(changes.filter((c) => c.configuration === grid.id).map((c) => `${c.row}|${c.column}`))
  return (
    <>
      <Title
        below={
          <>
            {t`${table.axes.row.label} and ${table.axes.column.label.toLowerCase()} · revision ${file.table.revision} · from “${table.document}”, entered by ${file.table.enteredBy}.`}{' '}
            {newest?.checkedBy ? (
              t`Checked by ${newest.checkedBy}.`
            ) : (
              <strong className="text-unproven">{t`Nobody has checked it.`}</strong>
            )}
            {file.inUse !== file.table.revision && (
              <strong className="text-near"> {t`Lifts are proved with revision ${file.inUse} until then.`}</strong>
            )}
          </>
        }
      >
        {table.title}
      </Title>
      <div className="mb-4 flex flex-wrap items-end gap-2">
        <div className="min-w-60 grow">
          <SelectField
            label={t`Configuration`}
            value={grid.id}
            options={grids.map((g) => ({ value: g.id, label: g.label }))}
            onChange={setConfig}
          />
        </div>
        {may && !draft && <Button onClick={() => setDraft(file.table)}>{t`Revise`}</Button>}
        <Button onClick={() => save(`${table.id}.csv`, tableToCsv(table), 'text/csv')}>{t`CSV`}</Button>
        <Button onClick={() => save(`${table.id}.json`, JSON.stringify(table, null, 1), 'application/json')}>{t`JSON`}</Button>
        {may && (
          <FileButton
            accept=".csv,text/csv,.json,application/json"
            onFile={(f) => void take(f)}
          >{t`Take from a file`}</FileButton>
        )}
      </div>
      <Refused error={error} />
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)] items-start gap-4 pb-6 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
        <Sheet title={t`Ratings over what physics allows, ${unitOf(units, 'mass').label}`}>
          <Suspense fallback={<div className="h-80 animate-pulse rounded-lg bg-sunk" role="status" aria-label={t`Drawing`} />}>
            <RatingChart
              grid={grid}
              axes={table.axes}
              limits={found?.limits.find((l) => l.configuration === grid.id)?.kg ?? null}
            />
          </Suspense>
        </Sheet>
        <div className="grid min-w-0 gap-4">
          <Sheet title={t`Against physics and itself`}>
            {unchecked && <p className="font-semibold text-unproven">{unchecked}</p>}
            {found && odd.length === 0 && (
              <p>{t`Nothing stands out in any configuration. That is no proof: the maker’s book is.`}</p>
            )}
            <ul className="grid gap-1.5">
              {odd.slice(0, 12).map((o) => (
                <li key={`${o.configuration} ${o.row} ${o.column}`}>
                  <button
                    type="button"
                    className="min-h-12 w-full border-l-4 border-outside bg-paper px-3 py-1.5 text-left"
                    onClick={() => setConfig(o.configuration)}
                  >
                    <strong className="figure">
                      {o.rowValue} / {o.columnValue}
                    </strong>
                    {o.configuration !== grid.id && (
                      <span className="text-quiet"> {t`in ${grids.find((g) => g.id === o.configuration)?.label}`}</span>
                    )}
                    <span className="block">{told(o.message)}</span>
                  </button>
                </li>
              ))}
            </ul>
            {odd.length > 12 && <p className="mt-2 text-quiet">{t`and ${odd.length - 12} more.`}</p>}
          </Sheet>
          <Sheet title={t`Revisions`}>
            <ol className="grid gap-2">
              {file.revisions.map((r) => (
                <li key={r.revision} className="border-b border-line pb-2 last:border-b-0">
                  {rich`${<strong>{r.revision}</strong>}, entered by ${r.enteredBy}`}{' '}
                  {r.why && <span className="text-quiet">{day(r.enteredAt)}</span>}
                  <span className="block text-[0.95rem]">{r.why || t`As first entered.`}</span>
                  <span className="block text-[0.92rem] text-quiet">
                    {r.checkedBy ? t`Checked by ${r.checkedBy}` : t`Not checked`}
                    {r.revision === file.inUse ? t` · counts now` : ''}
                  </span>
                </li>
              ))}
            </ol>
            <p className="mt-2">
              <Link
                to="/calculators/table-check"
                className="inline-flex min-h-12 items-center font-semibold underline decoration-edge decoration-2 underline-offset-4"
              >{t`How a table is checked`}</Link>
            </p>
          </Sheet>
        </div>
        <Sheet title={t`Cells, ${grid.label}`} className="lg:col-span-2">
          <CellGrid
            key={`${grid.id} ${draft ? 'draft' : 'read'}`}
            grid={grid}
            axes={table.axes}
            odd={odd.filter((o) => o.configuration === grid.id)}
            changed={marked}
            onChange={
              draft
                ? (row, column, kg) => setDraft((d) => withCell(d ?? table, { configuration: grid.id, row, column }, kg))
                : undefined
            }
          />
        </Sheet>
        <Sheet title={draft ? t`Changed from revision ${file.table.revision}` : t`Changed from the revision before`}>
          {changes.length === 0 && <p className="text-quiet">{against ? t`Nothing.` : t`There is no revision before.`}</p>}
          <ul className="grid gap-1">
            {changes.slice(0, 20).map((c) => (
              <li key={`${c.configuration} ${c.row} ${c.column}`} className="figure text-[0.95rem]">
                {c.row} / {c.column}: {c.from_kg === null ? t`not rated` : say('mass', c.from_kg)} →{' '}
                <strong>{c.to_kg === null ? t`not rated` : say('mass', c.to_kg)}</strong>{' '}
                <span className="font-sans text-quiet">{grids.find((g) => g.id === c.configuration)?.label}</span>
              </li>
            ))}
          </ul>
          {changes.length > 20 && <p className="mt-2 text-quiet">{t`and ${changes.length - 20} more.`}</p>}
        </Sheet>
      </div>
      {draft && (
        <ActionBar why={t`It counts once somebody else has checked it.`}>
          <Form onSubmit={enter} className="flex w-full flex-wrap items-end gap-3">
            <div className="w-full max-w-md">
              <TextEntry control={form.control} name="why" label={t`What changed, from which document`} />
            </div>
            <Button onClick={() => setDraft(null)}>{t`Leave it as it was`}</Button>
            <Button
              look="next"
              type="submit"
              disabled={changes.length === 0}
            >{t`Enter revision ${file.table.revision + 1}`}</Button>
          </Form>
        </ActionBar>
      )}
      {!draft && mayCheck && (
        <ActionBar why={t`Compare every changed cell with “${table.document}” first.`}>
          <Button look="next" onClick={() => void checked()}>{t`Checked against the document`}</Button>
        </ActionBar>
      )}
    </>
  )
}
