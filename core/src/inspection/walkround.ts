import { z } from 'zod'
import { grade } from '../defect/grade'
import { nth } from '../list'
import { finite } from '../quantity/measured'
import { codeId } from '../quantity/name-id'
import { measure } from './measure'

/** Why the machine is walked round: before use, after it was left alone, at the end of the shift. */
export const occasion = z.enum(['pre-use', 'after-absence', 'end-of-shift'])
export type Occasion = z.infer<typeof occasion>
export const occasionWords: Record<Occasion, string> = {
  'pre-use': 'Pre-use',
  'after-absence': 'After absence',
  'end-of-shift': 'End of shift',
}

/** Parts in their order. What is `raised` waits until overhead and people are checked, and the legs are set where there are any. */
export const walkPart = z.enum(['ground', 'cab', 'running', 'travel', 'raised'])
export type WalkPart = z.infer<typeof walkPart>
export const walkPartWords: Record<WalkPart, string> = {
  ground: 'Round it on foot',
  cab: 'Cab',
  running: 'Running, standing still',
  travel: 'Functions, as it stands for travel',
  raised: 'Functions, raised',
}

export const walkItem = z.strictObject({
  id: codeId,
  label: z.string().min(1),
  /** What to look for, in a few words. */
  look: z.string().min(1),
  good: z.string().min(1).optional(),
  bad: z.string().min(1).optional(),
  why: z.string().min(1).optional(),
  /** Where it is, and which cover to open. */
  where: z.string().min(1).optional(),
  cover: z.string().min(1).optional(),
  /** Looked at only where it is fitted. */
  mayBeMissing: z.boolean().optional(),
  measure: measure.optional(),
  /** The plate's fields are entered once and compared ever after. */
  plate: z.boolean().optional(),
  /** A defect found here is graded at least as grave as this. */
  leastGrade: grade.optional(),
  /** Rounds it belongs to; left out: only the one before the shift. */
  occasions: z.array(occasion).min(1).optional(),
  /** The shared piece it came from. */
  piece: z.string().optional(),
  /** The item confirms that this cover is shut again. */
  shuts: z.string().optional(),
})
export type WalkItem = z.infer<typeof walkItem>

export const zoneHead = {
  id: codeId,
  label: z.string().min(1),
  part: walkPart,
  /** Where one stands for it, on the plan, metres. */
  at: z.tuple([finite, finite]),
  /** The same zone on the side outline, metres along and up. */
  sideAt: z.tuple([finite, finite]).optional(),
  before: z.array(z.string().min(1)).optional(),
}

const zone = z.strictObject({ ...zoneHead, items: z.array(walkItem).min(1, 'A zone needs at least one item.') })
export type Zone = z.infer<typeof zone>

/** Zones in walking order: the ground once round, then the cab, then what is proved running. */
export const walkround = z
  .strictObject({ before: z.array(z.string()), zones: z.array(zone).min(1, 'A walk-round needs at least one zone.') })
  .superRefine((w, ctx) => {
    const items = new Set<string>()
    const zones = new Set<string>()
    let part = 0
    w.zones.forEach((z1, i) => {
      const complain = (path: (string | number)[], message: string) =>
        ctx.addIssue({ code: 'custom', path: ['zones', i, ...path], message })
      if (zones.has(z1.id)) complain(['id'], `Two zones have the id “${z1.id}”.`)
      zones.add(z1.id)
      const here = walkPart.options.indexOf(z1.part)
      if (here < part)
        complain(['part'], `“${walkPartWords[z1.part]}” comes before “${walkPartWords[nth(walkPart.options, part)]}”.`)
      part = Math.max(part, here)
      z1.items.forEach((item, j) => {
        if (items.has(item.id)) complain(['items', j, 'id'], `Two items have the id “${item.id}”.`)
        items.add(item.id)
      })
    })
  })
export type Walkround = z.infer<typeof walkround>

export interface Placed {
  zone: Zone
  item: WalkItem
}

const slug = (s: string) =>
  s
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')

/**
 * The items of one round in walking order. A zone in which a cover was opened ends with that cover shut: it is an item of its
 * own, so that no zone is finished while a cover is open.
 */
export function itemsOf(w: Walkround, occasion: Occasion = 'pre-use'): Placed[] {
  return w.zones.flatMap((zone1) => {
    const items = zone1.items.filter((item) => (item.occasions ?? ['pre-use']).includes(occasion))
    const covers = [...new Set(items.flatMap((i) => (i.cover ? [i.cover] : [])))]
    const shut = covers.map(
      (cover): WalkItem => ({
        id: `${zone1.id}-shut-${slug(cover)}`,
        label: `Shut: ${cover.toLowerCase()}`,
        look: 'Shut, latched, nothing left inside',
        shuts: cover,
      }),
    )
    return [...items, ...shut].map((item) => ({ zone: zone1, item }))
  })
}

/** What can be looked at before overhead, people and legs are settled, and what waits for that. */
export const isRaised = (p: Placed) => p.zone.part === 'raised'
