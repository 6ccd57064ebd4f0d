import { type Finding, found } from '../finding/finding'
import type { Case } from '../lift/case'
import type { Machine } from '../machine/machine'
import { needsOf } from '../machine/needs'
import type { Check } from './check'

/** What nobody can compute and somebody has to have looked at: pins, locks, clips, brakes. One finding for all of it. */
export const evidenceCheck: Check<'evidence'> = {
  id: 'evidence',
  since: 1,
  run: ({ machine, plan }) => evidenceOf(machine, plan),
  truck: ({ machine, plan }) => evidenceOf(machine, plan),
  tow: ({ machine, plan }) => evidenceOf(machine, plan),
  runway: ({ machine, plan }) => evidenceOf(machine, plan),
  straddle: ({ machine, plan }) => evidenceOf(machine, plan),
  gantry: ({ machine, plan }) => evidenceOf(machine, plan),
  heldBackBy: [],
  impliedBy: [],
  remedies: [],
}

function evidenceOf(machine: Machine, { setup }: Case): Finding[] {
  const needs = needsOf(machine, setup)
  const confirmed = new Set(setup.confirmed.map((c) => c.id))
  const open = needs.filter((n) => !confirmed.has(n.id))
  if (open.length > 0) {
    const detail = { open: open.map((n) => n.label) }
    return [found({ check: 'evidence', verdict: 'not-proven', reason: 'not-confirmed', detail })]
  }
  return needs.length === 0 ? [] : [found({ check: 'evidence', verdict: 'inside', reason: 'confirmed', detail: {} })]
}
