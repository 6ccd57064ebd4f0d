import type { MachineFile, Me, OrderPage } from '@geolabe/contract'
import { lazy, Suspense, useState } from 'react'
import { call, newId } from '../api/client'
import { useDraft } from '../api/draft'
import { queryClient } from '../api/me'
import { orderKey, useOrderPage } from '../api/queries'
import { plural, t, told } from '../language/t'
import { Button } from '../look/button'
import { TextField } from '../look/field'
import { Loaded, Refused, Sheet } from '../look/page'
import { when } from '../look/when'
import { Changes } from './changes'
import { isOrderDraft, type OrderDraft } from './draft'

const Editor = lazy(() => import('./editor').then((m) => ({ default: m.OrderEditor })))

/** The order of work as it counts, what waits for the person in charge, and the way to write it anew. */
export function OrderPanel({ file, me }: { file: MachineFile; me: Me }) {
  const { id, name } = file.definition
  const page = useOrderPage(id)
  const [draft, setDraft, clear] = useDraft<OrderDraft | null>(`order.${id}`, null, isOrderDraft)
  const forget = () => {
    clear()
    setDraft(null)
  }
  const may = me.roles.includes('administrator')
  return (
    <Loaded query={page}>
      {(p) =>
        draft && may ? (
          <Suspense fallback={<div className="h-64 animate-pulse rounded-xl bg-sunk" />}>
            <Editor page={p} name={name} draft={draft} setDraft={setDraft} forget={forget} />
          </Suspense>
        ) : (
          <div className="grid items-start gap-4 pb-8 lg:grid-cols-[1.4fr_1fr]">
            <InForce page={p} />
            <div className="grid gap-4">
              {p.waiting && <Waiting page={p} waiting={p.waiting} me={me} />}
              <Sheet title={t`On paper and as a file`}>
                <div className="flex flex-wrap gap-2">
                  <a className={link} href={`/api/machines/${id}/order.pdf`}>{t`To print`}</a>
                  <a className={link} href={`/api/machines/${id}/procedures.json`} download>{t`JSON`}</a>
                </div>
                {may ? (
                  <Button look="next" className="mt-4" onClick={() => setDraft({ from: p.revision, file: p.order, why: '' })}>
                    {t`Write it anew`}
                  </Button>
                ) : (
                  <p className="mt-3 text-quiet">{t`An administrator writes it anew; the person in charge puts it in force.`}</p>
                )}
              </Sheet>
              {p.before.length > 0 && <Before page={p} />}
            </div>
          </div>
        )
      }
    </Loaded>
  )
}
const link = 'flex min-h-12 items-center rounded-lg border-2 border-edge px-4 font-semibold'

function InForce({ page }: { page: OrderPage }) {
  const { procedures, invariants } = page.order
  const last = page.before.find((b) => b.revision === page.revision)
  return (
    <Sheet title={t`In force`}>
      <p className="mb-3 text-quiet">
        {last
          ? t`Revision ${page.revision}, written by ${last.writtenBy.name}, put in force by ${last.checkedBy?.name ?? ''}: ${last.why}`
          : t`The machine’s own, as it came with its definition.`}
      </p>
      <ul>
        {procedures.map((p) => (
          <li key={p.id} className="border-t border-line">
            <details>
              <summary className="min-h-12 cursor-pointer py-3">
                <span className="font-semibold">{told(p.label)}</span>{' '}
                <span className="text-quiet">{plural(p.steps.length, { one: '# step', other: '# steps' })}</span>
              </summary>
              <ol className="list-decimal pb-3 pl-8">
                {p.steps.map((s) => (
                  <li key={s.id}>{told(s.label)}</li>
                ))}
              </ol>
            </details>
          </li>
        ))}
        <li className="border-t border-line">
          <details>
            <summary className="min-h-12 cursor-pointer py-3">
              <span className="font-semibold">{t`What must never be`}</span>{' '}
              <span className="text-quiet">{plural(invariants.length, { one: '# rule', other: '# rules' })}</span>
            </summary>
            <ul className="list-disc pb-3 pl-8">
              {invariants.map((v) => (
                <li key={v.id}>{told(v.because)}</li>
              ))}
            </ul>
          </details>
        </li>
      </ul>
    </Sheet>
  )
}

function Waiting({ page, waiting, me }: { page: OrderPage; waiting: NonNullable<OrderPage['waiting']>; me: Me }) {
  const [error, setError] = useState<unknown>(null)
  const [words, setWords] = useState('')
  const decides = me.roles.includes('person-in-charge') && waiting.writtenBy.id !== me.id
  const check = async (ok: boolean) => {
    setError(null)
    try {
      const body = { id: waiting.id, ok, words: words.trim() }
      await call({ method: 'POST', path: `/machines/${page.machine}/procedures/written`, body, key: newId() })
      for (const queryKey of [orderKey(page.machine), ['machine', page.machine]]) void queryClient.invalidateQueries({ queryKey })
    } catch (e) {
      setError(e)
    }
  }
  return (
    <Sheet title={t`Waits for the person in charge`}>
      <p className="mb-3">{t`${waiting.writtenBy.name}, ${when(waiting.writtenAt)}: ${waiting.why}`}</p>
      <Changes changes={waiting.changes} />
      {decides ? (
        <div className="mt-4 grid gap-3">
          <p className="text-quiet">{t`It was looked through: no way leads to what must never be. Whether it fits the machine and its book, you say.`}</p>
          <Button look="next" onClick={() => void check(true)}>{t`Read it all: put it in force`}</Button>
          <TextField label={t`What is wrong with it`} rows={2} value={words} onChange={setWords} />
          <Button disabled={words.trim() === ''} onClick={() => void check(false)}>{t`Send it back`}</Button>
        </div>
      ) : (
        <p className="mt-3 text-quiet">{t`The person in charge puts it in force, another than who wrote it. Until then the one in force counts.`}</p>
      )}
      <Refused error={error} />
    </Sheet>
  )
}

function Before({ page }: { page: OrderPage }) {
  const state = { open: t`waits`, taken: t`put in force`, returned: t`sent back`, replaced: t`written anew since` }
  return (
    <Sheet title={t`Written before`}>
      <ul className="grid gap-2">
        {page.before.map((b) => (
          <li key={b.id} className="border-l-4 border-line pl-3">
            <span className="font-semibold">{b.revision === null ? state[b.state] : t`Revision ${b.revision}`}</span>,{' '}
            {b.writtenBy.name}, {when(b.writtenAt)}: {b.why}
            {b.words && <span className="block text-quiet">{t`${b.checkedBy?.name ?? ''}: ${b.words}`}</span>}
          </li>
        ))}
      </ul>
    </Sheet>
  )
}
