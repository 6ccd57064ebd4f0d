import { kindWords, type ShiftSummary } from '@geolabe/contract'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { call, newId } from '../api/client'
import { queryClient, useJournal, useJournalCheck, useShiftList } from '../api/queries'
import { Button } from '../look/button'
import { Loaded, Refused, Title } from '../look/page'
import { when } from '../look/when'

const tab =
  'min-h-12 border-b-4 border-transparent px-4 font-semibold data-[state=active]:border-accent data-[state=inactive]:text-quiet'

export function Records() {
  return (
    <>
      <Title>Records</Title>
      <Tabs.Root defaultValue="shifts">
        <Tabs.List className="mb-4 flex border-b border-line" aria-label="Kinds of records">
          <Tabs.Trigger value="shifts" className={tab}>
            Shifts
          </Tabs.Trigger>
          <Tabs.Trigger value="journal" className={tab}>
            Journal
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="shifts">
          <Shifts />
        </Tabs.Content>
        <Tabs.Content value="journal">
          <Journal />
        </Tabs.Content>
      </Tabs.Root>
    </>
  )
}

function Shifts() {
  const list = useShiftList()
  return (
    <>
      <Import />
      <Loaded query={list}>
        {(data) => (
          <ul className="grid gap-2 pb-6">
            {data.pages
              .flatMap((p) => p.shifts)
              .map((s) => (
                <li key={s.id}>
                  <ShiftRow shift={s} />
                </li>
              ))}
          </ul>
        )}
      </Loaded>
      {list.hasNextPage && <Button onClick={() => void list.fetchNextPage()}>Earlier ones</Button>}
    </>
  )
}

function ShiftRow({ shift: s }: { shift: ShiftSummary }) {
  return (
    <Link
      to={`/records/${s.id}`}
      className="grid gap-x-4 rounded-xl border border-line bg-sheet px-4 py-3 hover:bg-sunk sm:grid-cols-[8rem_1fr_auto]"
    >
      <strong className="text-lg">{s.machine.name}</strong>
      <span>
        {s.operator.name} at {s.place}
        <span className="block text-quiet">
          {when(s.openedAt)}
          {s.closedAt ? ` to ${when(s.closedAt)}` : ', still open'}
        </span>
      </span>
      <span className="figure self-center">
        {s.lifts} {s.lifts === 1 ? 'lift' : 'lifts'}
      </span>
    </Link>
  )
}

/** Takes an exported shift back in: all or nothing. */
function Import() {
  const [error, setError] = useState<unknown>(null)
  const navigate = useNavigate()
  const take = async (file: File | undefined) => {
    if (!file) return
    setError(null)
    try {
      const body: unknown = JSON.parse(await file.text())
      const { id } = await call<{ id: string }>({ method: 'POST', path: '/shift-files', body, key: newId() })
      void queryClient.invalidateQueries({ queryKey: ['shifts'] })
      navigate(`/records/${id}`)
    } catch (e) {
      setError(e instanceof SyntaxError ? new Error('This file is not JSON. Choose a shift that was exported from Geolabe.') : e)
    }
  }
  return (
    <div className="mb-4 grid gap-3">
      <label className="flex min-h-12 w-fit cursor-pointer items-center rounded-lg border-2 border-edge px-4 font-semibold has-focus-visible:outline-3 has-focus-visible:outline-ink">
        Import a shift file
        <input type="file" accept="application/json,.json" className="sr-only" onChange={(e) => void take(e.target.files?.[0])} />
      </label>
      <Refused error={error} />
    </div>
  )
}

function Journal() {
  const journal = useJournal()
  const [checking, setChecking] = useState(false)
  const check = useJournalCheck(checking)
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <Button
          onClick={() => {
            setChecking(true)
            void check.refetch()
          }}
        >
          Check the chain
        </Button>
        <p role="status" className={check.data && !check.data.intact ? 'font-bold text-outside' : ''}>
          {check.isFetching
            ? 'Following it from the first entry…'
            : check.data
              ? check.data.intact
                ? `${check.data.entries} entries, each as it was written.`
                : `Entry ${check.data.brokenAt} is not as it was written.`
              : 'Each entry carries the hash of the one before.'}
        </p>
      </div>
      <Loaded query={journal}>
        {(data) => (
          <ol className="mb-6 overflow-hidden rounded-xl border border-line bg-sheet">
            {data.pages
              .flatMap((p) => p.entries)
              .map((e) => (
                <li
                  key={e.seq}
                  className="grid gap-x-4 border-t border-line px-4 py-2 first:border-t-0 sm:grid-cols-[4rem_12rem_1fr_9rem]"
                >
                  <span className="figure text-quiet">{e.seq}</span>
                  <span className="text-quiet">{when(e.at)}</span>
                  <span>
                    <strong>{kindWords[e.kind] ?? e.kind}</strong> {e.actor ? `by ${e.actor.name}` : ''}{' '}
                    <span className="text-quiet">{summary(e.body)}</span>
                  </span>
                  <span className="figure truncate text-[0.85rem] text-quiet" title={e.hash}>
                    {e.hash.slice(0, 12)}
                  </span>
                </li>
              ))}
          </ol>
        )}
      </Loaded>
      {journal.hasNextPage && <Button onClick={() => void journal.fetchNextPage()}>Earlier ones</Button>}
    </>
  )
}

/** The few words of an entry that a reader looks for. */
function summary(body: Record<string, unknown>): string {
  return [
    'machine',
    'item',
    'result',
    'reading',
    'grade',
    'words',
    'verdict',
    'outcome',
    'reason',
    'hours',
    'calculator',
    'revision',
    'why',
  ]
    .map((k) => body[k])
    .filter((v) => (typeof v === 'string' && v !== '') || typeof v === 'number')
    .join(' · ')
}
