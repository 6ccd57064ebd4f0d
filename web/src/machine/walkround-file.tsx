import { csvToWalkround, type MachineFile, type Me, reviseWalkroundRequest, type WalkroundFile } from '@geolabe/contract'
import { itemsOf, measureLabel, type Occasion, occasion } from '@geolabe/core'
import { useState } from 'react'
import { call, newId } from '../api/client'
import { queryClient } from '../api/me'
import { useWalkroundFile } from '../api/queries'
import { t, told } from '../language/t'
import { occasionWords, walkPartWords } from '../language/words'
import { Button } from '../look/button'
import { Choice } from '../look/choice'
import { FileButton } from '../look/file-button'
import { Form, TextEntry, useEntry } from '../look/form'
import { Refused, Sheet } from '../look/page'
import { when } from '../look/when'

/** The walk-round as it is in use: read, taken out as a file, brought in as one. */
export function WalkroundFilePanel({ file, me }: { file: MachineFile; me: Me }) {
  const m = file.definition
  const [time, setTime] = useState<Occasion>('pre-use')
  const inUse = useWalkroundFile(m.id).data
  const items = itemsOf(m.walkround, time)
  const zones = [...new Set(items.map((x) => x.zone))]
  const may = me.roles.includes('person-in-charge') || me.roles.includes('administrator')
  const out = 'flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold'
  return (
    <div className="grid items-start gap-4 pb-8 lg:grid-cols-[1.6fr_1fr]">
      <Sheet title={t`${items.length} items, ${occasionWords[time].toLowerCase()}`}>
        <Choice
          label={t`Round`}
          hideLabel
          value={time}
          onChange={setTime}
          options={occasion.options.map((t) => ({ value: t, label: occasionWords[t] }))}
        />
        <ol className="mt-4 grid gap-4">
          {zones.map((z, i) => (
            <li key={z.id}>
              <p className="font-bold">
                {i + 1}. {told(z.label)} <span className="font-normal text-quiet">{walkPartWords[z.part]}</span>
              </p>
              <ul className="mt-1 grid gap-1 border-l-4 border-line pl-3">
                {items
                  .filter((x) => x.zone === z)
                  .map(({ item }) => (
                    <li key={item.id}>
                      <span className="font-semibold">{told(item.label)}</span>: {told(item.look)}
                      {item.measure && (
                        <span className="text-quiet"> {t`· measured: ${measureLabel(item.measure).toLowerCase()}`}</span>
                      )}
                      {item.mayBeMissing && <span className="text-quiet"> {t`· where fitted`}</span>}
                    </li>
                  ))}
              </ul>
            </li>
          ))}
        </ol>
      </Sheet>
      <div className="grid gap-4">
        <Sheet title={t`As a file`}>
          <p className="mb-3 text-quiet">
            {file.walkroundRevision === 0
              ? t`The machine’s own, as it came with its definition.`
              : t`Revision ${file.walkroundRevision}${inUse?.enteredBy ? t`, by ${inUse.enteredBy.name}` : ''}${inUse?.enteredAt ? `, ${when(inUse.enteredAt)}` : ''}: ${inUse?.why ?? ''}`}
          </p>
          <div className="flex flex-wrap gap-2">
            <a className={out} href={`/api/machines/${m.id}/walkround.json`} download={`walk-round-${m.id}.json`}>{t`JSON`}</a>
            <a className={out} href={`/api/machines/${m.id}/walkround.csv`} download>{t`CSV`}</a>
          </div>
        </Sheet>
        {inUse?.waiting && <Waiting file={inUse} me={me} />}
        {may && <BringIn file={file} />}
      </div>
    </div>
  )
}

/** Asks for less than the one in force: a second person reads what goes before it counts. */
function Waiting({ file, me }: { file: WalkroundFile; me: Me }) {
  const [error, setError] = useState<unknown>(null)
  const w = file.waiting
  if (!w) return null
  const asked = (x: WalkroundFile['walkround']) => x.zones.flatMap((z) => z.items)
  const kept = new Map(asked(w.walkround).map((i) => [i.id, i]))
  const gone = asked(file.walkround).filter((i) => !kept.has(i.id))
  const unmeasured = asked(file.walkround).filter((i) => i.measure && kept.has(i.id) && !kept.get(i.id)?.measure)
  const mine = w.enteredBy?.id === me.id
  const check = async () => {
    setError(null)
    try {
      const path = `/machines/${file.machine}/walkround/${w.revision}/check`
      queryClient.setQueryData(
        ['walkround', file.machine],
        await call<WalkroundFile>({ method: 'POST', path, body: {}, key: newId() }),
      )
      void queryClient.invalidateQueries({ queryKey: ['machine', file.machine] })
    } catch (e) {
      setError(e)
    }
  }
  return (
    <Sheet title={t`Waits for a second person`}>
      <p>{t`${w.enteredBy?.name ?? t`Somebody`} entered one that asks for less, ${when(w.enteredAt)}: ${w.why}`}</p>
      {gone.length > 0 && <p className="mt-2 font-semibold">{t`No longer looked at: ${gone.map((i) => i.label).join(', ')}.`}</p>}
      {unmeasured.length > 0 && (
        <p className="mt-2 font-semibold">{t`No longer measured: ${unmeasured.map((i) => i.label).join(', ')}.`}</p>
      )}
      {me.roles.includes('person-in-charge') && !mine ? (
        <Button look="next" className="mt-3" onClick={() => void check()}>{t`Checked: it may count`}</Button>
      ) : (
        <p className="mt-2 text-quiet">{t`The person in charge checks it, another than who entered it. Until then the one above counts.`}</p>
      )}
      <Refused error={error} />
    </Sheet>
  )
}

function BringIn({ file }: { file: MachineFile }) {
  const form = useEntry(reviseWalkroundRequest.pick({ why: true }), { why: '' })
  const [picked, setPicked] = useState<{ name: string; template: object; items: number } | null>(null)
  const [error, setError] = useState<unknown>(null)
  const [done, setDone] = useState('')
  const m = file.definition
  const read = async (f: File | undefined) => {
    setError(null)
    setPicked(null)
    setDone('')
    if (!f) return
    try {
      const text = await f.text()
      const template: { zones: { items: unknown[] }[] } = f.name.endsWith('.csv')
        ? csvToWalkround(text, m.id, file.walkroundRevision + 1, m.walkround.before)
        : JSON.parse(text)
      setPicked({ name: f.name, template, items: template.zones.reduce((n, z) => n + z.items.length, 0) })
    } catch (e) {
      setError(e instanceof SyntaxError ? new Error('This file is neither CSV nor readable JSON.') : e)
    }
  }
  const bring = form.handleSubmit(async ({ why }) => {
    if (!picked) return
    setError(null)
    try {
      const w = await call<WalkroundFile>({
        method: 'POST',
        path: `/machines/${m.id}/walkround`,
        body: { template: picked.template, why },
        key: newId(),
      })
      for (const key of ['machine', 'walkround']) void queryClient.invalidateQueries({ queryKey: [key] })
      setDone(t`Revision ${w.revision} is in use.`)
      setPicked(null)
      form.reset()
    } catch (e) {
      setError(e)
    }
  })
  return (
    <Sheet title={t`Bring one in`}>
      <div className="grid gap-3">
        <p className="text-quiet">{t`All or nothing: a fault is named with its row. Every zone round the machine has to stay.`}</p>
        <FileButton accept=".csv,.json,text/csv,application/json" onFile={(f) => void read(f)}>
          {picked ? picked.name : t`Choose a CSV or JSON file`}
        </FileButton>
        {picked && (
          <Form onSubmit={bring}>
            <p>{t`${picked.items} items were read.`}</p>
            <TextEntry control={form.control} name="why" label={t`Why it changes`} rows={2} />
            <Button look="next" type="submit">{t`Put it in use`}</Button>
          </Form>
        )}
        <p role="status">{done}</p>
        <Refused error={error} />
      </div>
    </Sheet>
  )
}
