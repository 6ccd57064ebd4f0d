import { z } from 'zod'
import { assessment } from '../assess/assessment'
import { occasion } from '../inspection/walkround'
import { conditions, liftPlan, setupPlan } from '../lift/plan'
import type { Evidence } from '../machine/needs'
import { personRef } from '../person-ref'
import { sitePolicy } from '../place/place'
import { orderEvent } from '../procedure/event'
import { moment } from '../quantity/date'
import { maybeWords, words } from '../words'

export const entryResult = z.enum(['in-order', 'defect', 'not-fitted'])
export type EntryResult = z.infer<typeof entryResult>

/** What was found at one item of a walk-round. */
export const inspectionEntry = z.strictObject({
  item: z.string(),
  result: entryResult,
  reading: z.number().nullable(),
  at: moment,
  /** The device it was entered on: what another device said about the same item is not overwritten unseen. */
  device: z.string().max(60).default(''),
  /** A reading that is hard to believe beside the last: measured again and it stands, or the part was replaced. */
  because: z.enum(['measured-again', 'replaced']).nullable().default(null),
})
export type InspectionEntry = z.infer<typeof inspectionEntry>

/** One walk-round of a shift, whatever its occasion. */
export const inspection = z.object({
  id: z.string(),
  occasion,
  openedAt: moment,
  entries: z.array(inspectionEntry),
  /** Its first part, or all of it. */
  finishedAt: moment.nullable(),
  /** What waited for overhead, people and outriggers. */
  raisedAt: moment.nullable(),
  /** Somebody has hands on the machine since. */
  handsOnAt: moment.nullable(),
})
export type Inspection = z.infer<typeof inspection>

/** What was found at the site: each hazard with its control, or not fit for the job. */
export const siteRecord = z.strictObject({
  controls: z.array(z.strictObject({ hazard: z.string(), control: words })),
  /** Hazards that were not listed beforehand. */
  more: z.array(z.strictObject({ label: words, control: words })).max(30),
  team: z.array(z.string().trim().min(1).max(80)).min(1, 'Name who looked at the site.').max(30),
  fit: z.boolean(),
})
export type SiteRecord = z.infer<typeof siteRecord>

export const setupRecord = z.object({ id: z.string(), at: moment, plan: setupPlan })
export type SetupRecord = z.infer<typeof setupRecord>

const overrideRecord = z.object({
  id: z.string(),
  override: z.string(),
  label: z.string(),
  reason: z.string(),
  seconds: z.number(),
  at: moment,
  /** What has to follow, whose part it is, and when it was done. */
  after: z.string(),
  role: z.string(),
  followedAt: moment.nullable(),
})

const revisionUsed = z.object({ id: z.string(), revision: z.number() })
export const liftOutcome = z.object({ outcome: z.enum(['done', 'abandoned']), reason: z.string() })

export const liftRecord = z.object({
  id: z.string(),
  setup: z.string(),
  at: moment,
  plan: liftPlan,
  conditions,
  policy: sitePolicy,
  assessment,
  /** What it was computed with, so that it can be computed again years later. */
  versions: z.object({ geolabe: z.string(), machine: revisionUsed, place: revisionUsed, tables: z.array(revisionUsed) }),
  outcome: liftOutcome.extend({ at: moment }).nullable(),
})
export type LiftRecord = z.infer<typeof liftRecord>

/** What stands how, made safe how, and who takes it back. */
export const leftAsItStands = z.strictObject({ how: words, madeSafe: words, takenBackBy: words })

/** How a machine is handed to the next person. */
export const handover = z.strictObject({
  hours: z.number().min(0).max(1_000_000).nullable(),
  fuel_share: z.number().min(0).max(1).nullable(),
  standsAt: maybeWords,
  words: maybeWords,
  /** Outriggers, forks, boom: as it was left. */
  leftAs: maybeWords.default(''),
  /** Working limits left switched on; empty: none. */
  limitsOn: maybeWords.default(''),
  /**
   * Broken down, or called away: left as it stands, with no step confirmed that was not done. What stands how, how it was made safe as
   * far as it could be, and who takes it back.
   */
  leftAsItStands: leftAsItStands.nullable().default(null),
})
export type Handover = z.infer<typeof handover>

const named = z.object({ id: z.string(), name: z.string() })

/** A person, a machine, a place, a day: everything that was done in it. */
export const shift = z.object({
  id: z.string(),
  machine: named.extend({ revision: z.number() }),
  place: named,
  operator: personRef,
  openedAt: moment,
  closedAt: moment.nullable(),
  signOn: z.object({ ppe: z.array(z.string()), documents: z.array(z.string()) }),
  /** In the order they were opened; the one before use is the first. */
  inspections: z.array(inspection),
  /** Every act in the order of work, as it was done. */
  order: z.array(orderEvent),
  overrides: z.array(overrideRecord),
  site: siteRecord.extend({ at: moment }).nullable(),
  /** When it last moved; what was set up before stands no more. */
  movedAt: moment.nullable(),
  setups: z.array(setupRecord),
  lifts: z.array(liftRecord),
  handover: handover.extend({ at: moment }).nullable(),
})
export type Shift = z.infer<typeof shift>

/** The walk-round before use, which every shift begins with. @throws RangeError for a shift without one: a defect of ours */
export function preUseOf(s: Pick<Shift, 'inspections'>): Inspection {
  const found = s.inspections.find((i) => i.occasion === 'pre-use')
  if (!found) throw new RangeError('a shift without a walk-round before use')
  return found
}

/**
 * What has to be confirmed of a machine that its walk-round has looked at already: every item that looks at the same is in order. Before the first
 * set-up of a shift only: what is changed after it is looked at again.
 *
 * @param evidence what has to be confirmed, with the items that look at it
 * @returns each with the moment of its last item
 */
export function walkedEvidence(
  evidence: readonly Evidence[],
  { inspections, setups }: Pick<Shift, 'inspections' | 'setups'>,
): { id: string; at: string }[] {
  const entries = inspections.find((i) => i.occasion === 'pre-use')?.entries ?? []
  if (setups.length > 0) return []
  return evidence.flatMap(({ id, walked = [] }) => {
    const found = walked.map((item) => entries.find((e) => e.item === item && e.result === 'in-order')?.at)
    const at = found
      .flatMap((x) => x ?? [])
      .sort()
      .at(-1)
    return at === undefined || found.includes(undefined) ? [] : [{ id, at }]
  })
}
