import { z } from 'zod'
import type { SupportState } from '../parts/supports/support'

/** One thing that no figure shows: looked at and confirmed with one touch, by whom and when. */
export const evidence = z.strictObject({
  id: z.string().regex(/^[a-z][a-z-]*$/, 'Small letters and hyphens.'),
  label: z.string().min(1),
  /** What goes wrong where it is not so. */
  caution: z.string().optional(),
  /** Items of the walk-round that look at the same: all of them in order, it is not asked a second time. */
  walked: z.array(z.string()).min(1).optional(),
})
export type Evidence = z.infer<typeof evidence>

/** The level has a check of its own, which knows whether the bubble was proved. */
const ownCheck = 'bubble'

/** A machine as far as it says what has to be confirmed of it. */
export interface Confirmable {
  evidence: readonly Evidence[]
  supportStates?: readonly SupportState[] | undefined
  upper?: { counterweights: readonly { id: string; suspended?: { evidence: string } | undefined }[] } | undefined
}

/** As much of how it stands as decides that. */
interface Stood {
  state?: string | undefined
}

/** As much of what is fitted. */
interface FittedWith {
  counterweight?: string | undefined
}

/**
 * What is asked for of a machine that stands so: what its way of standing needs; where it has only one, all of it. What a suspended counterweight
 * asks for only where it is fitted.
 */
export function askedFor(
  { evidence: all, supportStates, upper }: Confirmable,
  { state }: Stood,
  { counterweight }: FittedWith = {},
): readonly Evidence[] {
  const needs = supportStates?.find((s) => s.id === state)?.needs
  const others = (upper?.counterweights ?? []).flatMap((c) =>
    c.suspended && c.id !== counterweight ? [c.suspended.evidence] : [],
  )
  return all.filter((e) => (needs === undefined || needs.includes(e.id)) && !others.includes(e.id))
}

/** The same without what another check looks after. */
export const needsOf = (machine: Confirmable, { standing, fitted }: { standing: Stood; fitted: FittedWith }): Evidence[] =>
  askedFor(machine, standing, fitted).filter((e) => e.id !== ownCheck)
