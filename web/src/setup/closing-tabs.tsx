import type { Evidence, SetupPlan, Verdict } from '@geolabe/core'
import type { ComponentProps, ReactNode } from 'react'
import { t } from '../language/t'
import { Steps } from '../shift/steps'
import { ConfirmSheet } from './confirm-sheet'

interface Confirming {
  order: ComponentProps<typeof Steps>['steps']
  steps: string[]
  asked: readonly Evidence[]
  confirmed: SetupPlan['confirmed']
  /** Who confirms. */
  by: string
  onChange: (to: { steps?: string[]; confirmed?: SetupPlan['confirmed'] }) => void
}

/** The sheets that every set-up ends with: its steps in order, and what nobody can compute; none where there is nothing of it. */
export function closingTabs({ order, steps, asked, confirmed, by, onChange }: Confirming) {
  const open = asked.some((e) => !confirmed.some((c) => c.id === e.id))
  const tabs: { id: 'order' | 'confirm'; name: string; verdict?: Verdict | null; body: ReactNode }[] = []
  if (order.length > 0)
    tabs.push({
      id: 'order',
      name: t`In order`,
      body: <Steps steps={order} confirmed={steps} onChange={(to) => onChange({ steps: to })} />,
    })
  if (asked.length > 0)
    tabs.push({
      id: 'confirm',
      name: t`Confirm`,
      verdict: open ? 'not-proven' : null,
      body: <ConfirmSheet asked={asked} confirmed={confirmed} by={by} onChange={(to) => onChange({ confirmed: to })} />,
    })
  return tabs
}
