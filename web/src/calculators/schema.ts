import { z } from 'zod'

/** As much of JSON Schema as the calculators’ inputs use. */
export interface Schema {
  type?: string
  properties?: Record<string, Schema>
  required?: string[]
  items?: Schema
  anyOf?: Schema[]
  oneOf?: Schema[]
  enum?: (string | number)[]
  const?: string | number
  minItems?: number
}

export const schemaOf = (s: z.ZodType) => z.toJSONSchema(s, { io: 'input', unrepresentable: 'any' }) as Schema

export type Json = null | boolean | number | string | Json[] | { [key: string]: Json | undefined }
export type Obj = { [key: string]: Json | undefined }

export const isObj = (v: unknown): v is Obj => typeof v === 'object' && v !== null && !Array.isArray(v)
export const isTol = (v: unknown): v is { value: number; tolerance: number } =>
  isObj(v) && 'value' in v && 'tolerance' in v && Object.keys(v).length === 2

/** A figure that may carry a ±. */
export const takesTol = (s: Schema) =>
  Boolean(s.anyOf?.some((b) => b.properties?.tolerance) && s.anyOf.some((b) => b.type === 'number'))
export const isNumber = (s: Schema) => s.type === 'number' || s.type === 'integer' || takesTol(s)

/** Ways a value can be given: the branches of a union, without “nothing”. */
export const branchesOf = (s: Schema): Schema[] => (s.oneOf ?? s.anyOf ?? []).filter((b) => b.type !== 'null')
export const mayBeNull = (s: Schema) => Boolean(s.anyOf?.some((b) => b.type === 'null'))

/** The field that tells the branches of a union apart, and its words. */
export function tagOf(branches: readonly Schema[]): string | null {
  const keys = Object.keys(branches[0]?.properties ?? {})
  return (
    keys.find((k) => branches.every((b) => b.properties?.[k]?.const !== undefined || b.properties?.[k]?.enum !== undefined)) ??
    null
  )
}
export const tagsIn = (b: Schema, tag: string): string[] => {
  const t = b.properties?.[tag]
  return t?.const !== undefined ? [String(t.const)] : (t?.enum ?? []).map(String)
}

/** A first value of a schema, for what is added to a form. */
export function blankOf(s: Schema): Json {
  if (s.const !== undefined) return s.const
  if (s.enum) return s.enum[0] ?? ''
  if (isNumber(s)) return s.type === 'integer' ? 1 : 0
  const branches = branchesOf(s)
  if (branches.length > 0) return blankOf(branches[0] as Schema)
  if (s.type === 'boolean') return false
  if (s.type === 'array') return Array.from({ length: Math.max(1, s.minItems ?? 1) }, () => blankOf(s.items ?? {}))
  if (s.type === 'object') return Object.fromEntries((s.required ?? []).map((k) => [k, blankOf(s.properties?.[k] ?? {})]))
  return ''
}

/** The input with every ± left out: what drawings and formulas are made from. */
export function plainOf<T>(v: T): T {
  if (isTol(v)) return v.value as T
  if (Array.isArray(v)) return v.map(plainOf) as T
  if (isObj(v)) return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, plainOf(x)])) as T
  return v
}

/** An input with a part of it changed; a figure keeps its ±, a list its other entries. */
export function moved(value: Json | undefined, part: Json | undefined): Json {
  if (isTol(value) && typeof part === 'number') return { ...value, value: part }
  if (!isObj(part)) return part ?? value ?? null
  if (Array.isArray(value)) return value.map((v, i) => moved(v, part[i]))
  const was = isObj(value) ? value : {}
  return { ...was, ...Object.fromEntries(Object.entries(part).map(([k, p]) => [k, moved(was[k], p)])) }
}
