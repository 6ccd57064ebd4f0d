// `npm run catalogue`: every sentence of the product, read from the code, into web/src/language/en.json for translators.
// With `--check` nothing is written: is it current?
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { calculators, messageOf, pluralMessage } from '@geolabe/core'
import ts from 'typescript'
import { type Schema, schemaOf } from '../web/src/calculators/schema'
import { choiceBy, namedBy } from '../web/src/units/field-names'

const root = fileURLToPath(new URL('..', import.meta.url))
export const catalogueFile = join(root, 'web/src/language/en.json')

const partsOf = (n: ts.TemplateLiteral): string[] =>
  ts.isNoSubstitutionTemplateLiteral(n) ? [n.text] : [n.head.text, ...n.templateSpans.map((s) => s.literal.text)]

/** Written to be read: begins like a sentence or a name, or has several words. */
const reads = (s: string) =>
  (/^[A-Z“‘][^A-Z_/]*[a-z]/.test(s) && !/^[A-Z][a-z]+[A-Z]|[_<>]/.test(s)) || /[a-z’]{2,}[,;:]? [a-z“’]{2,}/.test(s)

/** What a server writes for a database or a drawing. */
const code = /\$\d|^(select|insert|update|delete|from|where|with)\b|[<>]|^[a-z]+ [a-z_]+ =|\b(order by|group by)\b/

/** Not to be read by people: keys, paths, what things are compared with, types. */
function forMachines(n: ts.Node): boolean {
  const p = n.parent
  if (ts.isImportDeclaration(p) || ts.isExportDeclaration(p) || ts.isLiteralTypeNode(p) || ts.isElementAccessExpression(p))
    return true
  if (ts.isPropertyAssignment(p) && p.name === n) return true
  if (ts.isCaseClause(p) || (ts.isBinaryExpression(p) && /^[!=]==?$/.test(p.operatorToken.getText()))) return true
  return ts.isNewExpression(p) && /^(Error|RegExp|URL)$/.test(p.expression.getText())
}

/** The sentences of a file on which words are marked: `t`, `rich`, `plural`. */
function marked(n: ts.Node): string[] {
  if (ts.isTaggedTemplateExpression(n) && /(^|\.)(t|rich)$/.test(n.tag.getText())) return [messageOf(partsOf(n.template))]
  if (!ts.isCallExpression(n) || !/(^|\.)plural$/.test(n.expression.getText())) return []
  const given = n.arguments[1]
  if (!given || !ts.isObjectLiteralExpression(given)) throw new Error(`${n.getText()}: give its forms where it is used.`)
  const form = (name: string) => {
    const at = given.properties.find((p) => p.name?.getText() === name)
    if (!at || !ts.isPropertyAssignment(at) || !ts.isStringLiteralLike(at.initializer))
      throw new Error(`${n.getText()}: ${name} is missing.`)
    return at.initializer.text
  }
  return [pluralMessage({ one: form('one'), other: form('other') })]
}

/** Short words that have a sentence to stand in: values of a list of words, what is given to `told`. */
const listed = (n: ts.Node) => {
  for (let at = n.parent; at; at = at.parent) {
    if (ts.isCallExpression(at)) return /(^|\.)told$/.test(at.expression.getText())
    if (ts.isVariableDeclaration(at)) return /[wW]ords$|^beams$/.test(at.name.getText())
    if (ts.isFunctionLike(at)) return false
  }
  return false
}

/** What the core, the contract and the server say: their words are looked up when they are shown. */
function plain(n: ts.Node): string[] {
  if (!n.parent || ts.isTaggedTemplateExpression(n.parent) || forMachines(n)) return []
  if (ts.isStringLiteralLike(n))
    return (reads(n.text) && !code.test(n.text) && !/\{\d\}/.test(n.text)) || listed(n) ? [n.text] : []
  if (!ts.isTemplateExpression(n)) return []
  const parts = partsOf(n)
  return reads(parts.join(' ')) && !code.test(parts.join('')) && parts.join('').replace(/\P{L}/gu, '').length >= 4
    ? [messageOf(parts)]
    : []
}

/** Fields of calculators and what is chosen in them, named by what they are called in the schemas. */
function fieldNames(): string[] {
  const found = new Set<string>()
  const through = (s: Schema): void => {
    for (const [field, at] of Object.entries(s.properties ?? {})) {
      found.add(namedBy(field))
      through(at)
    }
    for (const value of [s.const, ...(s.enum ?? [])]) if (typeof value === 'string') found.add(choiceBy(value))
    for (const at of [...(s.anyOf ?? []), ...(s.oneOf ?? []), ...(s.items ? [s.items] : [])]) through(at)
  }
  for (const c of calculators) through(schemaOf(c.input))
  return [...found]
}

/** Every sentence, in the order of the alphabet. */
export function sentences(): string[] {
  const found = new Set<string>(fieldNames())
  for (const workspace of ['core', 'contract', 'server', 'web']) {
    const files = readdirSync(join(root, workspace, 'src'), { recursive: true, encoding: 'utf8' })
    for (const f of files.filter((x) => /\.tsx?$/.test(x) && !/^(language|wording\/tell)\b/.test(x))) {
      const text = readFileSync(join(root, workspace, 'src', f), 'utf8')
      const tree = ts.createSourceFile(
        f,
        text,
        ts.ScriptTarget.Latest,
        true,
        f.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
      )
      const visit = (n: ts.Node): void => {
        for (const s of marked(n)) found.add(s)
        if (workspace !== 'web') for (const s of plain(n)) found.add(s)
        ts.forEachChild(n, visit)
      }
      visit(tree)
    }
  }
  return [...found].filter((s) => /\p{L}{2}/u.test(s)).sort((a, b) => (a < b ? -1 : 1))
}

/** As it is kept: each sentence by itself, as it is written. */
export const asCatalogue = (all: readonly string[]): string =>
  `${JSON.stringify(Object.fromEntries(all.map((s) => [s, s])), null, 2)}\n`

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const all = sentences()
  if (!process.argv.includes('--check')) writeFileSync(catalogueFile, asCatalogue(all))
  const current = readFileSync(catalogueFile, 'utf8') === asCatalogue(all)
  console.log(`${all.length} sentences${current ? '' : ': the catalogue is not current; npm run catalogue brings it up to date'}`)
  if (!current) process.exitCode = 1
}
