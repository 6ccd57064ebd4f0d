import type { Shift } from '@geolabe/contract'
import { askedFor, type Machine, offered, partOfPlan, provedBy, type SetupPlan, walkedEvidence } from '@geolabe/core'
import { type ComponentProps, type ReactNode, useMemo } from 'react'
import { plural, t } from '../language/t'
import { Button } from '../look/button'
import { Lead } from '../look/lead'
import { Refused } from '../look/page'
import { Sheets, type SheetTab } from '../look/sheets'
import { Station } from '../look/station'
import { openSteps } from '../order/steps'
import { useOrder } from '../order/use-order'
import { closingTabs } from './closing-tabs'
import { useRecordSetup } from './record-setup'

/** Something that is still to be done, and the sheet on which it is. */
export interface Owed<T> {
  why: string
  at: T
  /** What else is chosen when it is followed. */
  also?: () => void
}

export type Closing = 'assembly' | 'order' | 'confirm'

interface Props<T extends string> {
  shift: Shift
  machine: Machine
  plan: SetupPlan
  draft: { confirmed: SetupPlan['confirmed'] }
  onChange: (to: { confirmed: SetupPlan['confirmed'] }) => void
  /** The draft is done with once it is recorded. */
  clear: () => void
  /** What this machine’s set-up is about, the first time in a shift. */
  below: string
  head?: ReactNode
  first?: ComponentProps<typeof Station>['first']
  drawing: ReactNode
  open: T | Closing
  onOpen: (tab: T | Closing) => void
  tabs: readonly SheetTab<T>[]
  /** Sheets after those that every set-up ends with. */
  after?: readonly SheetTab<T>[]
  /** Without it nothing is recorded. */
  missing: Owed<T> | null
  /** It may be recorded all the same; a lift from it is not proven. */
  unproven?: Owed<T> | null
}

/**
 * The station of a set-up, whatever the machine stands on: its own sheets, then its steps in order and what nobody can compute; at the
 * foot what is owed first, and the way on.
 */
export function SetupStation<T extends string>(p: Props<T>) {
  const { shift, machine, plan, draft, onChange, onOpen, missing } = p
  const { record, error } = useRecordSetup(shift, machine, p.clear)
  const order = useOrder(useMemo(() => partOfPlan(plan), [plan]))
  const open = openSteps(order, 'setup')
  const ordered = offered(order.file, order.world, 'setup', order.asking).length > 0
  const asked = askedFor(machine, plan.standing, plan.fitted)
  // What a step of the order vouches for, or the walk-round has looked at, is not asked a second time.
  const inOrder = provedBy(order.file, order.world, order.asking).map((v) => ({ id: v.id, at: new Date(v.at_ms).toISOString() }))
  const walked = walkedEvidence(machine.evidence, shift).filter((v) => !inOrder.some((o) => o.id === v.id))
  const vouched = [...inOrder, ...walked]
    .filter((v) => asked.some((e) => e.id === v.id))
    .map((v) => ({ ...v, by: shift.operator.id }))
  const confirmed = [...draft.confirmed.filter((c) => !vouched.some((v) => v.id === c.id)), ...vouched]
  const unconfirmed = asked.filter((e) => !confirmed.some((c) => c.id === e.id)).length
  const first: Owed<T | Closing> | null =
    missing ?? (open > 0 ? { why: plural(open, { one: '# step to confirm.', other: '# steps to confirm.' }), at: 'order' } : null)
  const owed: Owed<T | Closing> | null =
    first ??
    p.unproven ??
    (unconfirmed > 0
      ? {
          why: plural(unconfirmed, {
            one: '# point to confirm, else not proven.',
            other: '# points to confirm, else not proven.',
          }),
          at: 'confirm',
        }
      : null)
  const follow = () => {
    if (!owed) return
    onOpen(owed.at)
    owed.also?.()
  }
  return (
    <Station
      title={t`Set up ${machine.name}`}
      below={shift.lifts.length > 0 ? t`Recording a new set-up asks for every lift to be proved again.` : p.below}
      head={
        <>
          {p.head}
          <Refused error={error} />
        </>
      }
      // On a phone the order, and who does what when, come before the drawing while they are read.
      {...(p.open === 'order' || p.open === 'assembly' ? { first: 'sheet' } : p.first ? { first: p.first } : {})}
      drawing={p.drawing}
      sheet={
        <Sheets<T | Closing>
          label={t`The set-up, in the order it is worked`}
          open={p.open}
          onOpen={onOpen}
          tabs={[
            ...p.tabs,
            ...closingTabs({
              machine,
              plan,
              order: ordered ? order : null,
              confirmed,
              vouched: vouched.map((v) => v.id),
              asked,
              by: shift.operator.id,
              onChange,
            }),
            ...(p.after ?? []),
          ]}
        />
      }
      why={owed && <Lead onFollow={follow}>{owed.why}</Lead>}
      actions={
        <Button
          look="next"
          disabled={first !== null}
          onClick={() => void record({ ...plan, confirmed })}
        >{t`Record this set-up`}</Button>
      }
    />
  )
}
