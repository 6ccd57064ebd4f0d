import type { Losing, OrderChange, OrderPart, OrderPartName, ProcedureFinding, ProcedureStep } from '@geolabe/core'
import { t, told } from '../language/t'

export const hazardWords: Record<ProcedureStep['hazards'][number], string> = {
  drop: t`something drops`,
  roll: t`it rolls`,
  tip: t`it tips`,
  crush: t`somebody is crushed`,
  pressure: t`pressure gets free`,
  fall: t`somebody falls`,
  shock: t`a shock`,
  fire: t`fire`,
}

/** What was found, in a word or two over its sentence. */
export const findingWords: Record<ProcedureFinding['code'], string> = {
  'never-set': t`Nothing makes it so`,
  'never-read': t`Nothing asks for it`,
  'unreachable-step': t`Out of reach`,
  'dead-end': t`A dead end`,
  'no-way-to-goal': t`No way to its goal`,
  'no-way-back': t`No way back`,
  'undo-breaks': t`Is not undone`,
  'override-too-wide': t`An override too wide`,
  'drop-unguarded': t`Something could drop`,
  violates: t`Breaks a rule`,
  'two-person-one-badge': t`Two people, one badge`,
  'stop-without-reset': t`A stop with no way on`,
  'blocks-emergency': t`An emergency without its card`,
  'too-large': t`Too much to look through`,
}

export const whatWords: Record<OrderChange['what'], string> = {
  gone: t`Taken out`,
  new: t`Put in`,
  changed: t`Reads otherwise`,
  moved: t`Stands elsewhere`,
}

const partWords: Record<OrderPart, string> = {
  procedure: t`order`,
  step: t`step`,
  need: t`need`,
  reading: t`reading`,
  state: t`state`,
  never: t`rule`,
  stop: t`stop`,
  override: t`override`,
  place: t`place to stand`,
  assembly: t`way of putting it together`,
  emergency: t`what is done first in an emergency`,
}

/** What differs, and in what: Taken out: need “…” of “Hook up”. */
export const changeWords = (c: OrderChange): string => {
  const part = partWords[c.part]
  const name = c.name === '' ? part : t`${part} “${told(c.name)}”`
  return c.within === null ? name : t`${name} of “${told(c.within)}”`
}

const fieldNames: Record<string, string> = {
  label: t`words`,
  detail: t`how`,
  caution: t`what goes wrong otherwise`,
  signals: t`hand signals`,
  at: t`where they stand`,
  if: t`what has to be so`,
  because: t`why`,
  remedy: t`what makes it so`,
  never: t`what must never be`,
  sets: t`what it makes so`,
  hazards: t`what could happen`,
  hold: t`how long it is held`,
  two: t`the two people`,
  undo: t`how it is undone`,
  when: t`when it is asked`,
  doing: t`during which steps`,
  goal: t`its goal`,
  asked: t`when it has to be so`,
}
export const fieldWords = (field: string): string => fieldNames[field] ?? field

/** A value of a file as a person reads it. */
export const valueWords = (v: unknown): string =>
  v === null ? t`nothing` : typeof v === 'string' ? `“${told(v)}”` : JSON.stringify(v)

/** What makes a state unknown again, as it is said. */
export const losingWords: Record<Losing, string> = {
  leaving: t`somebody leaves the machine`,
  operator: t`another operator`,
  setup: t`another set-up`,
  stop: t`a stop`,
  moved: t`the machine moves`,
  sight: t`somebody goes out of sight`,
  impact: t`an impact`,
  load: t`another load`,
  change: t`another kind of work`,
  rest: t`a pause`,
}

/** The lists of a file besides its steps. */
export const partLists: Record<OrderPartName, { many: string; one: string; more: string; out: string }> = {
  invariants: { many: t`Rules`, one: t`This rule`, more: t`A rule`, out: t`Take this rule out` },
  states: { many: t`States`, one: t`This state`, more: t`A state`, out: t`Take this state out` },
  stops: { many: t`Stops`, one: t`This stop`, more: t`A stop`, out: t`Take this stop out` },
  overrides: { many: t`Overrides`, one: t`This override`, more: t`An override`, out: t`Take this override out` },
  procedures: { many: t`Orders`, one: t`This order`, more: t`An order`, out: t`Take this order out` },
}
