import type { Verdict } from '@geolabe/core'
import { Tabs } from 'radix-ui'
import { Activity, memo, type ReactNode } from 'react'
import { VerdictMark } from './verdict'

export interface SheetTab<Id extends string> {
  id: Id
  name: string
  /** Shown beside its name where it is not in order. */
  verdict?: Verdict | null | undefined
  body: ReactNode
}

/**
 * The sheet beside a drawing: one at a time, chosen by touching its thing on the drawing or its name here. The others keep what was
 * typed in them, and are brought up to date when they are opened.
 */
export function Sheets<Id extends string>({
  label,
  open,
  onOpen,
  tabs,
}: {
  label: string
  open: Id
  onOpen: (id: Id) => void
  tabs: readonly SheetTab<Id>[]
}) {
  return (
    <Tabs.Root
      value={open}
      onValueChange={(v) => onOpen(v as Id)}
      className="flex max-h-[68dvh] min-h-0 flex-col overflow-hidden rounded-xl border border-line bg-sheet roomy:h-full roomy:max-h-none"
    >
      <Names label={label} tabs={tabs} />
      {tabs.map((t) => (
        <Sheet key={t.id} id={t.id} open={t.id === open}>
          {t.body}
        </Sheet>
      ))}
    </Tabs.Root>
  )
}

/** What nobody sees is not drawn anew. */
const Sheet = memo(
  function Sheet({ id, open, children }: { id: string; open: boolean; children: ReactNode }) {
    return (
      <Activity mode={open ? 'visible' : 'hidden'}>
        <Tabs.Content forceMount value={id} className="relative min-h-0 overflow-y-auto p-3.5 outline-offset-[-3px] roomy:grow">
          {children}
        </Tabs.Content>
      </Activity>
    )
  },
  (before, next) => !before.open && !next.open,
)

interface Name {
  id: string
  name: string
  verdict?: Verdict | null | undefined
}

/** Drawn anew only where a name or its mark has changed. */
const Names = memo(
  function Names({ label, tabs }: { label: string; tabs: readonly Name[] }) {
    return (
      <Tabs.List aria-label={label} className="flex shrink-0 flex-wrap border-b border-line px-1.5">
        {tabs.map((t) => (
          <Tabs.Trigger
            key={t.id}
            value={t.id}
            className="flex min-h-12 shrink-0 grow items-center justify-center gap-1.5 border-b-4 border-transparent px-1.5 font-semibold max-sm:px-1 max-sm:text-[0.92rem] whitespace-nowrap text-quiet data-[state=active]:border-accent data-[state=active]:text-ink"
          >
            {t.verdict && t.verdict !== 'inside' && <VerdictMark verdict={t.verdict} size={16} />}
            {t.name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
    )
  },
  (a, b) =>
    a.tabs.length === b.tabs.length &&
    a.tabs.every((t, i) => t.id === b.tabs[i]?.id && t.name === b.tabs[i].name && t.verdict === b.tabs[i].verdict),
)
