import { found } from '../finding/finding'
import type { Check } from './check'

/** Who rides up with the load: weighed, and no more of them than the platform is made for. Harness and gates are confirmed by eye. */
export const aloftCheck: Check<'aloft'> = {
  id: 'aloft',
  since: 1,
  run: ({ machine, plan }) => {
    const persons = plan.lift.hung.persons?.length ?? 0
    if (persons === 0) return []
    const most = machine.truck?.attachments?.find((a) => a.id === plan.setup.fitted.attachment)?.persons ?? 0
    const verdict = persons > most ? 'outside' : 'inside'
    return [found({ check: 'aloft', verdict, reason: persons > most ? 'too-many' : 'persons', detail: { persons, most } })]
  },
  truck: ({ truck, plan, drive }) => {
    const { operator } = truck.chassis
    if (!operator || drive) return []
    const persons = plan.lift.hung.persons ?? []
    if (persons.length === 0) return [found({ check: 'aloft', verdict: 'not-proven', reason: 'not-weighed', detail: {} })]
    const count = { persons: persons.length, most: operator.most }
    return persons.length > operator.most
      ? [found({ check: 'aloft', verdict: 'outside', reason: 'too-many', detail: count })]
      : [found({ check: 'aloft', verdict: 'inside', reason: 'persons', detail: count })]
  },
  heldBackBy: [],
  impliedBy: [],
  remedies: [],
}
