import { type Finding, found } from '../finding/finding'
import type { Case } from '../lift/case'
import { type Displayed, displayed } from '../parts/display'
import type { Check } from './check'

/** What is fitted, and the table in use: what its display has to show. What is left out is judged by another check. */
type Fitted = { [D in Displayed]?: string | number | undefined }

/** The machine's own computer is set to what is fitted, and to the table that is read. */
export const selectionCheck: Check<'selection'> = {
  id: 'selection',
  since: 1,
  run: ({ plan, choice, partsOfLine, step }) =>
    selectionOf(plan, {
      configuration: choice.chosen?.configuration.id,
      boom_m: step.boom_m,
      partsOfLine,
      counterweight: plan.setup.fitted.counterweight,
      attachment: plan.setup.fitted.attachment,
    }),
  truck: ({ plan, tool }) => selectionOf(plan, { attachment: tool }),
  // Without a table there is nothing to compare its setting with.
  heldBackBy: ['table', 'mass'],
  impliedBy: [],
  remedies: [],
}

/** What a thing is called where it has a name of its own. */
function nameOf({ machine, tables }: Case, thing: Displayed, value: string | number): string {
  const named: { [D in Displayed]?: readonly { id: string; label: string }[] | undefined } = {
    attachment: machine.truck?.attachments,
    counterweight: machine.upper?.counterweights,
    configuration: tables.flatMap((t) => t.configurations),
  }
  return named[thing]?.find((x) => x.id === value)?.label ?? String(value)
}

/** @param fitted as it is, to be compared with what the display was read to show */
function selectionOf(plan: Case, fitted: Fitted): Finding[] {
  const shown = plan.setup.fitted.selected
  const { display } = plan.machine
  const asked = displayed.filter((thing) => display?.shows.includes(thing) || shown?.[thing] !== undefined)
  return asked.flatMap((thing): Finding[] => {
    const [reads, is] = [shown?.[thing], fitted[thing]]
    if (is === undefined) return []
    const on = { check: 'selection', subject: thing } as const
    if (reads === undefined) return [found({ ...on, verdict: 'not-proven', reason: 'not-entered', detail: { thing } })]
    const detail = { thing, reads: nameOf(plan, thing, reads), is: nameOf(plan, thing, is) }
    return reads === is
      ? [found({ ...on, verdict: 'inside', reason: 'agrees', detail })]
      : [found({ ...on, verdict: 'outside', reason: 'differs', detail })]
  })
}
