import type { ShiftSummary } from '@geolabe/contract'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { call, newId } from '../api/client'
import { queryClient, useShiftList } from '../api/queries'
import { Button } from '../look/button'
import { Loaded, Refused, Title } from '../look/page'
import { when } from '../look/when'
import { Journal } from './journal'
import { Rounds } from './rounds'

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
          <Tabs.Trigger value="rounds" className={tab}>
            Rounds
          </Tabs.Trigger>
          <Tabs.Trigger value="journal" className={tab}>
            Journal
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="shifts">
          <Shifts />
        </Tabs.Content>
        <Tabs.Content value="rounds">
          <Rounds />
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
