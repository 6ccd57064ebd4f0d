import { type Evidence, liftsOnHook, type Machine, type SetupPlan, type Verdict } from '@geolabe/core'
import { lazy, type ReactNode, Suspense } from 'react'
import { t } from '../language/t'
import { AssemblySheet } from '../order/assembly'
import { OrderSteps, openSteps } from '../order/steps'
import type { Order } from '../order/use-order'
import { ConfirmSheet } from './confirm-sheet'

const RaisingSheet = lazy(() => import('../order/raising').then((m) => ({ default: m.RaisingSheet })))

interface Confirming {
  machine: Machine
  plan: Pick<SetupPlan, 'standing' | 'fitted'>

  /** The machine’s order of setting up; null: it has none. */
  order: Order | null
  asked: readonly Evidence[]
  confirmed: SetupPlan['confirmed']
  /** Of those, what steps of the order vouch for. */
  vouched: readonly string[]
  /** Who confirms. */
  by: string
  onChange: (to: { confirmed: SetupPlan['confirmed'] }) => void
}

/** The sheets that every set-up ends with: its steps in order, and what nobody can compute; none where there is nothing of it. */
export function closingTabs({ machine, plan, order, asked, confirmed, vouched, by, onChange }: Confirming) {
  const open = asked.some((e) => !confirmed.some((c) => c.id === e.id))
  const tabs: { id: 'assembly' | 'order' | 'confirm'; name: string; verdict?: Verdict | null; body: ReactNode }[] = []
  if (order && order.file.assembly.length > 0)
    tabs.push({
      id: 'assembly',
      name: t`Who and when`,
      body: (
        <div className="grid gap-6">
          <AssemblySheet order={order} />
          {liftsOnHook(machine) && machine.boom.raising && (
            <Suspense>
              <RaisingSheet machine={machine} plan={plan} />
            </Suspense>
          )}
        </div>
      ),
    })
  if (order)
    tabs.push({
      id: 'order',
      name: t`In order`,
      verdict: openSteps(order, 'setup') > 0 ? 'not-proven' : null,
      body: <OrderSteps order={order} station="setup" />,
    })
  if (asked.length > 0)
    tabs.push({
      id: 'confirm',
      name: t`Confirm`,
      verdict: open ? 'not-proven' : null,
      body: (
        <ConfirmSheet
          asked={asked}
          vouched={vouched}
          confirmed={confirmed}
          by={by}
          onChange={(to) => onChange({ confirmed: to })}
        />
      ),
    })
  return tabs
}
