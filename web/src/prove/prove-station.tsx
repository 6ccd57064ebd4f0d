import type { Remedy } from '@geolabe/core'
import type { ComponentProps, ReactNode } from 'react'
import { t } from '../language/t'
import { Button } from '../look/button'
import { Refused } from '../look/page'
import { Sheets } from '../look/sheets'
import { Station } from '../look/station'
import { Findings } from './findings'
import { ProofHead, worthOf } from './proof-head'
import { ChangeList } from './remedy-list'
import type { useProving } from './use-proving'

/** Proving anything: the answer, its drawing, nearest changes and findings, the sheets it is planned on, and its record. */
export function ProveStation<Tab extends string>({
  title,
  on,
  rated,
  drawing,
  label,
  tabs,
  next,
  onTake,
  proving,
}: {
  title: string
  /** What carries it, as it is said. */
  on: string
  /** What the least rating is of, as it is said; left out: of the lift. */
  rated?: string
  drawing: ReactNode
  /** Of the sheets. */
  label: string
  /** Each marks what is open on it by itself. */
  tabs: readonly { id: Tab; name: string; body: ReactNode }[]
  /** What is recorded, and what follows. */
  next: string
  onTake: (made: Remedy) => void
  proving: ReturnType<typeof useProving<Tab>>
}) {
  const { proof, assessment, advised, tab, setTab, open, openOn, proven } = proving
  const sheets: ComponentProps<typeof Sheets<Tab>>['tabs'] = tabs.map((t) => ({ ...t, verdict: openOn(t.id) }))
  return (
    <Station
      title={title}
      head={
        <>
          <ProofHead proof={proof} on={on} rated={rated} />
          <Refused error={proving.error} />
        </>
      }
      drawing={drawing}
      list={
        assessment && (
          <>
            <ChangeList assessment={assessment} advice={advised.advice} current={advised.current} onTake={onTake} onOpen={open} />
            <Findings assessment={assessment} open={proving.opened} onOpen={open} />
          </>
        )
      }
      sheet={<Sheets label={label} open={tab} onOpen={setTab} tabs={sheets} />}
      why={worthOf(assessment?.verdict)}
      actions={
        <Button look={proven ? 'next' : 'plain'} disabled={!proving.ready} onClick={() => void proving.record()}>
          {proven ? next : t`Record as it is`}
        </Button>
      }
    />
  )
}
