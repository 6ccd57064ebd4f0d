import type { Me, ShiftSummary } from '@geolabe/contract'
import { Tabs } from 'radix-ui'
import { Link } from 'react-router'
import { moreOf, useShiftList } from '../api/queries'
import { rich } from '../language/rich'
import { plural, t } from '../language/t'
import { LongList } from '../look/long-list'
import { Loaded, Title } from '../look/page'
import { when } from '../look/when'
import { Imported } from './imported'
import { Rounds } from './inspections'
import { Journal } from './journal'

const tab =
  'min-h-12 border-b-4 border-transparent px-3 font-semibold sm:px-4 data-[state=active]:border-accent data-[state=inactive]:text-quiet'

export function Records({ me }: { me: Me }) {
  return (
    <>
      <Title>{t`Records`}</Title>
      <Tabs.Root defaultValue="shifts">
        <Tabs.List className="mb-4 flex border-b border-line" aria-label={t`Kinds of records`}>
          <Tabs.Trigger value="shifts" className={tab}>{t`Shifts`}</Tabs.Trigger>
          <Tabs.Trigger value="rounds" className={tab}>{t`Rounds`}</Tabs.Trigger>
          <Tabs.Trigger value="journal" className={tab}>{t`Journal`}</Tabs.Trigger>
          <Tabs.Trigger value="imported" className={tab}>{t`From elsewhere`}</Tabs.Trigger>
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
        <Tabs.Content value="imported">
          <Imported me={me} />
        </Tabs.Content>
      </Tabs.Root>
    </>
  )
}

function Shifts() {
  const list = useShiftList()
  return (
    <Loaded query={list}>
      {(data) => (
        <LongList
          label={t`Shifts, the latest first`}
          items={data.pages.flatMap((p) => p.shifts)}
          keyOf={(s) => s.id}
          row={(s) => <ShiftRow shift={s} />}
          estimate_px={76}
          more={moreOf(list)}
        />
      )}
    </Loaded>
  )
}

function ShiftRow({ shift: s }: { shift: ShiftSummary }) {
  return (
    <Link
      to={`/records/${s.id}`}
      className="grid gap-x-4 rounded-xl border border-line bg-sheet px-4 py-3 hover:bg-sunk sm:grid-cols-[8rem_1fr_auto]"
    >
      <strong className="text-lg">{s.machine.name}</strong>
      <span>{rich`${s.operator.name} at ${s.place}${(
        <span className="block text-quiet">
          {when(s.openedAt)}
          {s.closedAt ? t` to ${when(s.closedAt)}` : t`, still open`}
        </span>
      )}`}</span>
      <span className="figure self-center">{plural(s.lifts, { one: '# lift', other: '# lifts' })}</span>
    </Link>
  )
}
