import { z } from 'zod'
import { Refusal } from '../refusal'

type Raw = Record<string, unknown>
const raw = z.record(z.string(), z.unknown())
/** No machine comes near: what is longer was not written by hand. */
const [most, longest, largest] = [1000, 2000, 500_000]
const list = z.array(raw).max(most).default([])

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
  members: z
    .record(
      z.string(),
      z
        .array(z.strictObject({ id: z.string().max(60), label: z.string().max(200) }))
        .min(1)
        .max(60),
    )
    .default({}),
  posts: list,
  states: list,
  procedures: z
    .array(z.looseObject({ steps: z.array(raw).max(most) }))
    .min(1)
    .max(100),
  invariants: list,
  stops: list,
  overrides: list,
  assembly: list,
  emergency: raw.optional(),
})
export type ProcedureSource = z.infer<typeof procedureSource>

type Members = ProcedureSource['members']

/**
 * How much has been written out: pieces in pieces and groups in groups grow without end in a few lines.
 *
 * @throws Refusal `too-large`
 */
class Budget {
  private left = largest
  spend(size: number): void {
    this.left -= size
    if (this.left < 0)
      throw new Refusal(
        'too-large',
        'Written out, this order is larger than any machine’s: use fewer pieces and groups in one another.',
        '',
      )
  }
}

/** What an object itself holds under a name, and nothing that all objects have. */
const own = <T>(of: Readonly<Record<string, T>>, name: string): T | undefined => (Object.hasOwn(of, name) ? of[name] : undefined)

/** Every string of a value through a function. */
function inStrings(v: unknown, change: (s: string) => string, budget: Budget): unknown {
  budget.spend(1)
  if (typeof v === 'string') {
    if (v.length > longest)
      throw new Refusal('too-large', `A text here is longer than ${longest} letters: “${v.slice(0, 40)} …”.`, '')
    const changed = change(v)
    budget.spend(changed.length)
    return changed
  }
  if (Array.isArray(v)) return v.map((x) => inStrings(x, change, budget))
  if (typeof v !== 'object' || v === null) return v
  return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, inStrings(x, change, budget)]))
}

const groupOf = (members: Members, of: unknown, path: string) => {
  const group = typeof of === 'string' ? own(members, of) : undefined
  if (!group) throw new Refusal('unknown-members', `This file does not say what “${String(of)}” are.`, path)
  return group
}
const forMember = (v: unknown, m: { id: string; label: string }, budget: Budget) =>
  inStrings(v, (s) => s.replaceAll('$label', () => m.label).replaceAll('$', () => m.id), budget)

/** Conditions that speak of every one of a group, written out. */
function conditionsOut(v: unknown, members: Members, path: string, budget: Budget): unknown {
  budget.spend(1)
  if (Array.isArray(v)) return v.map((x, i) => conditionsOut(x, members, `${path}.${i}`, budget))
  if (typeof v !== 'object' || v === null) return v
  const o = raw.parse(v)
  if ('each' in o && 'if' in o && Object.keys(o).length === 2) {
    const all = groupOf(members, o.each, path).map((m) => forMember(o.if, m, budget))
    return { all: all.map((x, i) => conditionsOut(x, members, `${path}.all.${i}`, budget)) }
  }
  if ('one' in o && 'if' in o && Object.keys(o).length === 2) {
    const any = groupOf(members, o.one, path).map((m) => forMember(o.if, m, budget))
    return { any: any.map((x, i) => conditionsOut(x, members, `${path}.any.${i}`, budget)) }
  }
  return Object.fromEntries(Object.entries(o).map(([k, x]) => [k, conditionsOut(x, members, `${path}.${k}`, budget)]))
}

/** What is written once for several, once for each. */
function each(all: readonly Raw[], members: Members, path: string, budget: Budget): Raw[] {
  return all.flatMap((one, i) => {
    const { each: of, ...rest } = one
    if (of === undefined) return [one]
    return groupOf(members, of, `${path}.${i}.each`).map((m) => ({
      ...raw.parse(forMember(rest, m, budget)),
      ...(path === 'invariants' ? {} : { member: { of, ...m, base: rest.id } }),
    }))
  })
}

/** What is filled in is a word or two. */
const longestFilled = 300

const filled = (v: unknown, values: Raw, budget: Budget) =>
  inStrings(
    v,
    (s) =>
      s.replace(/\{\{(\w+)\}\}/g, (_, key: string) => {
        const value = String(own(values, key) ?? '')
        if (value.length > longestFilled)
          throw new Refusal('too-large', `What is filled in for “${key}” is longer than ${longestFilled} letters.`, '')
        return value
      }),
    budget,
  )

interface Used {
  budget: Budget
  pieces: ReadonlyMap<unknown, ProcedurePieces['pieces'][number]>
  states: Raw[]
  posts: Raw[]
  invariants: Raw[]
}

/** A piece's rule about doing steps, of those that are left of it where it is used; none are: none. */
function ofSteps(v: Raw, kept: ReadonlySet<unknown>): Raw[] {
  if (!Array.isArray(v.doing)) return [v]
  const doing = v.doing.filter((id) => kept.has(id))
  return doing.length > 0 ? [{ ...v, doing }] : []
}

/** Pieces in pieces in pieces, and not further. */
const deepest = 12

/** Steps with those of the pieces in their places. */
function withPieces(steps: readonly Raw[], used: Used, path: string, depth = 0): Raw[] {
  if (depth > deepest) throw new Refusal('too-large', 'A piece uses itself, or pieces stand in one another too deep.', path)
  return steps.flatMap((s, i) => {
    if (!('use' in s)) return [s]
    used.budget.spend(40)
    const piece = used.pieces.get(s.use)
    if (!piece) throw new Refusal('unknown-piece', `There is no piece “${String(s.use).slice(0, 60)}”.`, `${path}.${i}.use`)
    const values = raw.parse(s.with ?? {})
    const fill = (v: unknown) => list.parse(filled(v, values, used.budget))
    for (const part of ['states', 'posts'] as const) used[part].push(...fill(piece[part]))
    const without = new Set(z.array(z.string()).parse(s.without ?? []))
    const changed = z.record(z.string(), raw).parse(s.change ?? {})
    const more = z.record(z.string(), list).parse(s.needs ?? {})
    const kept = fill(piece.steps)
      .filter((x) => !without.has(String(x.id)))
      .map((x) => {
        if ('use' in x) return x
        const id = String(x.id)
        return { ...x, ...own(changed, id), needs: [...list.parse(x.needs ?? []), ...(own(more, id) ?? [])] }
      })
    const ids = new Set<unknown>(kept.map((x) => ('id' in x ? x.id : undefined)))
    used.invariants.push(...fill(piece.invariants).flatMap((v) => ofSteps(v, ids)))
    return withPieces(kept, used, `${path}.${i}`, depth + 1)
  })
}

/** The first of each id. */
function once(all: readonly Raw[]): Raw[] {
  const seen = new Set<unknown>()
  return all.filter((x) => !seen.has(x.id) && seen.add(x.id))
}

/**
 * One flat file from how it is written: pieces put in, groups written out. What it says is not yet looked at; see `procedureFile`.
 *
 * @throws Refusal `unknown-piece`, `unknown-members`, `too-large`
 */
export function writtenFlat(source: ProcedureSource, { pieces }: ProcedurePieces): object {
  const budget = new Budget()
  const named = new Map<unknown, ProcedurePieces['pieces'][number]>(pieces.toReversed().map((p) => [p.id, p]))
  const used: Used = { budget, pieces: named, states: [], posts: [], invariants: [] }
  const { members } = source
  const procedures = source.procedures.map((p, i) => ({
    ...p,
    steps: each(withPieces(p.steps, used, `procedures.${i}.steps`), members, `procedures.${i}.steps`, budget),
  }))
  const flat = {
    posts: once([...source.posts, ...used.posts]),
    states: once(each([...source.states, ...used.states], members, 'states', budget)),
    procedures,
    invariants: once(each([...source.invariants, ...used.invariants], members, 'invariants', budget)),
    stops: source.stops,
    overrides: source.overrides,
    assembly: source.assembly,
    ...(source.emergency === undefined ? {} : { emergency: source.emergency }),
  }
  return raw.parse(conditionsOut(flat, members, '', budget))
}
