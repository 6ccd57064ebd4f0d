import type { NotChecked } from '../assess/assess'
import type { CheckName, Finding } from '../finding/finding'
import type { Say } from './say'

export interface FindingWords {
  /** What was looked at. */
  title: string
  /** What was found, in one sentence. */
  what: string
  /** By which rule. */
  rule: string
  /** What to do; empty when there is nothing to do. */
  todo: string
}

const titles: Record<CheckName, string> = {
  mass: 'Mass of the load',
  radius: 'Radius',
  reach: 'Boom',
  table: 'Rating table',
  rating: 'Rated capacity',
  line: 'Hoist line',
  hook: 'Hook block',
  stability: 'Tipping',
  leg: 'Leg',
  ground: 'Ground',
  wind: 'Wind',
  level: 'Level',
}

const rules: Record<CheckName, string> = {
  mass: 'No lift on a guess.',
  radius: 'The machine’s own table.',
  reach: 'Boom geometry.',
  table: 'The machine’s own table, for exactly this set-up.',
  rating: 'The machine’s own table.',
  line: 'Line pull, parts and sheave efficiency.',
  hook: 'The block’s own marking.',
  stability: 'Statics, with the margin of the machine’s table.',
  leg: 'The maker’s greatest leg load.',
  ground: 'Pressure under pad or mat.',
  wind: 'The table’s wind, lowered for the load’s sail.',
  level: 'The table’s greatest tilt.',
}

/** A finding in words. Findings are data; this is the only place that words them. */
export function findingWords(f: Finding, say: Say): FindingWords {
  const title = f.subject ? `${titles[f.check]} · ${f.detail.label ?? f.subject}` : titles[f.check]
  const q = (v: number | null) => (f.quantity === null || v === null ? '' : say(f.quantity, v))
  const d = f.detail
  const rule =
    f.check === 'rating' && d.rule
      ? `${rules.rating} Read by the ${d.rule === 'linear' ? 'straight line' : 'worse row'}.`
      : rules[f.check]
  const words = (what: string, todo = ''): FindingWords => ({ title, what: `${what}${doubt(f, say)}`, rule, todo })
  const key = `${f.check}/${f.reason}`
  switch (key) {
    case 'mass/unknown':
      return words(
        'The mass is not known, or nobody said how it is known.',
        'Weigh it, work it out, read the marking, or ask whoever knows the product.',
      )
    case 'table/no-table':
      return words(
        'No rating table for this machine with this counterweight.',
        'Enter the table, or fit a counterweight it is made for.',
      )
    case 'table/unknown-configuration':
      return words('The table has no such setting for this counterweight.', 'Choose a setting the table has.')
    case 'table/legs-short':
      return words(
        `“${d.table}” does not cover this set-up: ${d.legs} not out as far as it asks.`,
        'Put those legs further out, or choose a setting made for shorter legs.',
      )
    case 'rating/outside-sector':
      return words(
        `The path leaves the part of the circle that “${d.table}” covers.${d.legs ? ` “${d.other}” would cover it, but ${d.legs} stand too short.` : ''}`,
        'Keep the lift inside the sector, or put the legs further out.',
      )
    case 'rating/not-rated':
      return words(`Not rated at ${at(f, say)}: the table has nothing here.`, 'Come closer or change the boom length.')
    case 'rating/bend-unknown':
      return words(
        `${q(f.measured)} of ${q(f.limit)} by the radius worked out, but a boom bends outwards under load and nobody has said how far.`,
        'Measure the radius with the load hanging just clear, or give the bend.',
      )
    case 'rating/capacity':
      return words(`${q(f.measured)} on the hook of ${q(f.limit)} rated at ${at(f, say)}.`, over(f))
    case 'line/capacity':
      return words(
        `${q(f.measured)} on ${d.parts} parts of line that hold ${q(f.limit)}.`,
        over(f) && 'Reeve more parts, or lift less.',
      )
    case 'hook/capacity':
      return words(`${q(f.measured)} on ${d.block}, marked ${q(f.limit)}.`, over(f) && 'Fit a larger block.')
    case 'stability/tipping':
      return words(
        `${q(f.measured)} of ${q(f.limit)} that stability allows over ${d.edge} at ${at(f, say)}; it would tip at ${say('mass', Number(d.tipping_kg))}.`,
        over(f),
      )
    case 'stability/cannot-tip':
      return words('The hook stays inside the footprint; the load alone cannot tip the machine.')
    case 'stability/unstable-unloaded':
      return words(
        'Without any load the machine would tip over here.',
        'Widen the footprint or keep the boom out of this direction.',
      )
    case 'leg/capacity':
      return words(`${q(f.measured)} at most on this leg, which may carry ${q(f.limit)}.`, over(f))
    case 'ground/allowable':
    case 'ground/presumed':
      return words(
        `${q(f.measured)} on ${String(d.ground).toLowerCase()}, which takes ${q(f.limit)}${f.reason === 'presumed' ? ' (presumed)' : ''}. ${d.source}`,
        over(f) && 'A larger mat, or less load on this leg.',
      )
    case 'ground/nothing-presumed':
      return words(
        `${q(f.measured)} on ${String(d.ground).toLowerCase()}: nothing may be presumed for it.`,
        'Get a figure from an engineer or a test, or stand somewhere else.',
      )
    case 'ground/unknown':
      return words('Nobody has said what this leg stands on.', 'Choose the ground under this leg.')
    case 'wind/no-limit':
      return words('The table in use states no wind limit.', 'Ask for the maker’s figure.')
    case 'wind/no-sail':
      return words('The load’s sail area is not known.', 'Give its largest side, height × width.')
    case 'wind/no-mass':
      return words('Without a known mass the wind limit cannot be worked out.', 'Find out the mass.')
    case 'wind/unread':
      return words(`No wind reading. This load may be lifted up to ${q(f.limit)}.`, 'Read the gauge at the boom tip.')
    case 'wind/speed':
      return words(`${q(f.measured)} of ${q(f.limit)} for this load’s sail.`, over(f) && 'Wait for the wind to fall.')
    case 'level/unread':
      return words('The level has not been read both ways.', 'Read the level along and across.')
    case 'level/no-limit':
      return words('No table in use says how much tilt it allows.', 'Choose a set-up that a table covers.')
    case 'level/bubble-unproved':
      return words(
        `${q(f.measured)} out of level by a bubble that nobody has proved.`,
        'Turn a loose level end for end and compare.',
      )
    case 'level/tilt':
      return words(`${q(f.measured)} out of level; the table allows ${q(f.limit)}.`, over(f) && 'Level again.')
    case 'reach/too-steep':
      return words(
        `Too close for ${say('length', Number(d.boom_m))} of boom: it cannot be raised past ${say('angle', Number(d.angle_deg))}.`,
        'Shorten the boom or move out.',
      )
    case 'reach/too-flat':
      return words(
        `Too far for ${say('length', Number(d.boom_m))} of boom: it may not be lowered past ${say('angle', Number(d.angle_deg))}.`,
        'Lengthen the boom or come closer.',
      )
    case 'reach/out-of-reach':
      return words(`${say('length', Number(d.boom_m))} of boom does not reach this radius.`, 'Lengthen the boom or come closer.')
    default:
      return words(f.reason)
  }
}

/** What is measured or estimated is judged at its worse end; where that makes a difference it is said. */
const doubted = new Set<CheckName>(['rating', 'line', 'hook', 'stability', 'wind', 'level'])
function doubt(f: Finding, say: Say): string {
  if (!doubted.has(f.check) || f.quantity === null || f.measured === null || f.nominal === null) return ''
  if (Math.abs(f.measured - f.nominal) <= 0.002 * Math.abs(f.measured)) return ''
  return ` That is the worse end of its ±; as given it is ${say(f.quantity, f.nominal)}.`
}

const over = (f: Finding) => (f.verdict === 'outside' ? 'Do not lift. Change what is named below.' : '')
const at = (f: Finding, say: Say) => (f.at ? `${say('length', f.at.radius_m)}, slew ${say('angle', f.at.slew_deg)}` : '')

/** What was not checked, listed next to what was. */
export const notCheckedWords: Record<NotChecked, string> = {
  clearance: 'Whether boom, load or tail touch anything on the way round',
  'overhead-lines': 'Distance to overhead lines at every point of the path',
  slings: 'Sling angles, shackles and lifting points',
  buried: 'Voids, culverts and services below the ground’s given figure',
  swing: 'Swing and jerk beyond the site’s dynamic factor',
  condition: 'Rope, hook and structure beyond the walk-round',
  'hook-height': 'Hook height and rope left on the drum',
  people: 'People inside the zone',
  'machine-tilt': 'The machine’s own weight shifting with its tilt',
  'mats-near': 'Mats so near each other that their pressures add up',
}
