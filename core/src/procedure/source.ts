import { z } from 'zod'
import { Refusal } from '../refusal'

type Raw = Record<string, unknown>
const raw = z.record(z.string(), z.unknown())
const list = z.array(raw).default([])

/** A run of steps that many machines share, with the states and rules that go with it; `{{name}}` is filled in where it is used. */
export const procedurePiece = z.strictObject({
  id: z.string(),
  states: list,
  posts: list,
  invariants: list,
  steps: list,
})
export const procedurePieces = z.strictObject({
  format: z.literal('geolabe.procedure-pieces/1'),
  pieces: z.array(procedurePiece),
})
export type ProcedurePieces = z.infer<typeof procedurePieces>

/** A procedure file as it is written: with pieces of others, and what there is several of written once. */
export const procedureSource = z.strictObject({
  format: z.literal('geolabe.procedure/1'),
  machine: z.string(),
  /** What there is several of: legs, beams, hoists, pins. */
  members: z.record(z.string(), z.array(z.strictObject({ id: z.string(), label: z.string() })).min(1)).default({}),
  posts: list,
  states: list,
  procedures: z.array(z.looseObject({ steps: z.array(raw) })).min(1),
  invariants: list,
  stops: list,
  overrides: list,
  assembly: list,
  emergency: raw.optional(),
})
export type ProcedureSource = z.infer<typeof procedureSource>

type Members = ProcedureSource['members']

/** Every string of a value through a function. */
function inStrings(v: unknown, change: (s: string) => string): unknown {
  if (typeof v === 'string') return change(v)
  if (Array.isArray(v)) return v.map((x) => inStrings(x, change))
  if (typeof v !== 'object' || v === null) return v
  return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, inStrings(x, change)]))
}

const groupOf = (members: Members, of: unknown, path: string) => {
  const group = typeof of === 'string' ? members[of] : undefined
  if (!group) throw new Refusal('unknown-members', `This file does not say what “${String(of)}” are.`, path)
  return group
}
const forMember = (v: unknown, m: { id: string; label: string }) =>
  inStrings(v, (s) => s.replaceAll('$label', m.label).replaceAll('$', m.id))

/** Conditions that speak of every one of a group, written out. */
function conditionsOut(v: unknown, members: Members, path: string): unknown {
  if (Array.isArray(v)) return v.map((x, i) => conditionsOut(x, members, `${path}.${i}`))
  if (typeof v !== 'object' || v === null) return v
  const o = raw.parse(v)
  if ('each' in o && 'if' in o && Object.keys(o).length === 2) {
    const all = groupOf(members, o.each, path).map((m) => forMember(o.if, m))
    return { all: all.map((x, i) => conditionsOut(x, members, `${path}.all.${i}`)) }
  }
  if ('one' in o && 'if' in o && Object.keys(o).length === 2) {
    const any = groupOf(members, o.one, path).map((m) => forMember(o.if, m))
    return { any: any.map((x, i) => conditionsOut(x, members, `${path}.any.${i}`)) }
  }
  return Object.fromEntries(Object.entries(o).map(([k, x]) => [k, conditionsOut(x, members, `${path}.${k}`)]))
}

/** What is written once for several, once for each. */
function each(all: readonly Raw[], members: Members, path: string): Raw[] {
  return all.flatMap((one, i) => {
    const { each: of, ...rest } = one
    if (of === undefined) return [one]
    return groupOf(members, of, `${path}.${i}.each`).map((m) => ({
      ...raw.parse(forMember(rest, m)),
      ...(path === 'invariants' ? {} : { member: { of, ...m, base: rest.id } }),
    }))
  })
}

const filled = (v: unknown, values: Raw) =>
  inStrings(v, (s) => s.replace(/\{\{(\w+)\}\}/g, (_, key: string) => String(values[key] ?? '')))

interface Used {
  states: Raw[]
  posts: Raw[]
  invariants: Raw[]
}

/** A piece's rule about doing steps, of those that are left of it where it is used; none are: none. */
function ofSteps(v: Raw, kept: readonly Raw[]): Raw[] {
  if (!Array.isArray(v.doing)) return [v]
  const doing = v.doing.filter((id) => kept.some((s) => s.id === id))
  return doing.length > 0 ? [{ ...v, doing }] : []
}

/** Steps with those of the pieces in their places. */
function withPieces(steps: readonly Raw[], pieces: ProcedurePieces['pieces'], used: Used, path: string): Raw[] {
  return steps.flatMap((s, i) => {
    if (!('use' in s)) return [s]
    const piece = pieces.find((p) => p.id === s.use)
    if (!piece) throw new Refusal('unknown-piece', `There is no piece “${String(s.use)}”.`, `${path}.${i}.use`)
    const values = raw.parse(s.with ?? {})
    for (const part of ['states', 'posts'] as const) used[part].push(...list.parse(filled(piece[part], values)))
    const without = z.array(z.string()).parse(s.without ?? [])
    const changed = z.record(z.string(), raw).parse(s.change ?? {})
    const own = list.parse(filled(piece.steps, values))
    const more = z.record(z.string(), list).parse(s.needs ?? {})
    const kept = own
      .filter((x) => !without.includes(String(x.id)))
      .map((x) => ({ ...x, ...changed[String(x.id)], needs: [...list.parse(x.needs ?? []), ...(more[String(x.id)] ?? [])] }))
    used.invariants.push(...list.parse(filled(piece.invariants, values)).flatMap((v) => ofSteps(v, kept)))
    return withPieces(kept, pieces, used, `${path}.${i}`)
  })
}

/** The first of each id. */
const once = (all: readonly Raw[]): Raw[] => all.filter((x, i) => all.findIndex((y) => y.id === x.id) === i)

/**
 * One flat file from how it is written: pieces put in, groups written out. What it says is not yet looked at; see `procedureFile`.
 *
 * @throws Refusal `unknown-piece`, `unknown-members`
 */
export function writtenFlat(source: ProcedureSource, { pieces }: ProcedurePieces): object {
  const used: Used = { states: [], posts: [], invariants: [] }
  const { members } = source
  const procedures = source.procedures.map((p, i) => ({
    ...p,
    steps: each(withPieces(p.steps, pieces, used, `procedures.${i}.steps`), members, `procedures.${i}.steps`),
  }))
  const flat = {
    posts: once([...source.posts, ...used.posts]),
    states: once(each([...source.states, ...used.states], members, 'states')),
    procedures,
    invariants: once(each([...source.invariants, ...used.invariants], members, 'invariants')),
    stops: source.stops,
    overrides: source.overrides,
    assembly: source.assembly,
    ...(source.emergency === undefined ? {} : { emergency: source.emergency }),
  }
  return raw.parse(conditionsOut(flat, members, ''))
}
