import type { Grade } from '../defect/grade'
import { gradeWords } from '../defect/grade'

export interface HandoverFacts {
  defects: readonly { where: string; words: string; grade: Grade; worsened: boolean }[]
  /** Readings of this shift that are watched. */
  nearLimit: readonly { label: string; reading: number; unit: string; limit: number; reaches: string | null }[]
  overrides: readonly { label: string; reason: string; after: string; followed: boolean }[]
  due: readonly { label: string; state: 'never' | 'overdue' | 'soon' | 'later'; date: string | null }[]
  hours: number | null
  energy: { label: string; share: number | null } | null
  standsAt: string
  /** Legs, forks, boom: as it was left. */
  leftAs: string
  /** Limits that were left switched on. */
  limitsOn: string
}

export interface HandoverLine {
  about: 'defect' | 'reading' | 'override' | 'due' | 'state'
  text: string
  grave: boolean
}

/** What the next person must know, made from the record: gravest first, then how it stands. */
export function handoverLines(f: HandoverFacts): HandoverLine[] {
  const lines: HandoverLine[] = []
  const say = (about: HandoverLine['about'], text: string, grave = false) => lines.push({ about, text, grave })
  for (const d of f.defects) {
    say(
      'defect',
      `${gradeWords[d.grade].label}: ${d.where}: ${d.words}${d.worsened ? '. It has worsened.' : ''}`,
      d.grade !== 'watch' || d.worsened,
    )
  }
  for (const o of f.overrides) {
    say('override', `${o.label} was used: ${o.reason}. ${o.followed ? 'Done since' : 'Still to do'}: ${o.after}`, !o.followed)
  }
  for (const r of f.nearLimit) {
    const by = r.reaches ? `, expected there ${r.reaches}` : ''
    say('reading', `${r.label} ${r.reading} ${r.unit}; limit ${round(r.limit)} ${r.unit}${by}`)
  }
  for (const d of f.due) {
    if (d.state === 'overdue') say('due', `${d.label} is overdue${d.date ? ` since ${d.date}` : ''}`, true)
    if (d.state === 'never') say('due', `${d.label} was never recorded`)
    if (d.state === 'soon') say('due', `${d.label} falls due ${d.date ?? 'soon'}`)
  }
  if (f.limitsOn) say('state', `Limits left switched on: ${f.limitsOn}`, true)
  if (f.standsAt) say('state', `Stands at ${f.standsAt}`)
  if (f.leftAs) say('state', `Left: ${f.leftAs}`)
  if (f.energy) {
    say(
      'state',
      f.energy.share === null ? `${f.energy.label} was not read` : `${f.energy.label} ${Math.round(f.energy.share * 100)} %`,
    )
  }
  if (f.hours !== null) say('state', `${f.hours} hours on the meter`)
  return lines
}

const round = (v: number) => Math.round(v * 100) / 100
