import { readdirSync, readFileSync } from 'node:fs'
import { posix } from 'node:path'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

/** How the code is written, read from its syntax tree: what a reviewer would else have to look for at every change. */
const root = new URL('../../', import.meta.url)
const sources = ['core', 'contract', 'server', 'web'].flatMap((workspace) =>
  readdirSync(new URL(`${workspace}/src/`, root), { recursive: true, encoding: 'utf8' })
    .filter((f) => /\.tsx?$/.test(f))
    .map((f) => {
      const path = `${workspace}/src/${f}`
      const kind = f.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS
      const text = readFileSync(new URL(path, root), 'utf8')
      return { path, tree: ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, kind) }
    }),
)
const inCore = sources.filter((s) => s.path.startsWith('core/'))

function nodesOf(tree: ts.SourceFile): ts.Node[] {
  const all: ts.Node[] = []
  const visit = (n: ts.Node): void => {
    all.push(n)
    ts.forEachChild(n, visit)
  }
  visit(tree)
  return all
}
const where = (path: string, tree: ts.SourceFile, n: ts.Node) =>
  `${path}:${tree.getLineAndCharacterOfPosition(n.getStart(tree)).line + 1}`

/** `kind.id` of a machine, the `name` of a calculator: what a part or a declaration should be asked for instead. */
function isKindOrName(n: ts.Node): boolean {
  if (!ts.isPropertyAccessExpression(n)) return false
  const of = n.expression.getText()
  return (n.name.text === 'id' && /(^|\.)kind$/.test(of)) || (n.name.text === 'name' && /(^|\.)calculator$/.test(of))
}

/** Compared, switched on, or looked up by. */
function asked(n: ts.Node): boolean {
  const { parent } = n
  if (ts.isBinaryExpression(parent)) return /^[!=]==?$/.test(parent.operatorToken.getText())
  if (ts.isSwitchStatement(parent)) return parent.expression === n
  if (ts.isElementAccessExpression(parent)) return parent.argumentExpression === n
  if (ts.isCallExpression(parent) && ts.isPropertyAccessExpression(parent.expression))
    return ['includes', 'get', 'has', 'indexOf'].includes(parent.expression.name.text)
  return false
}

/** Folders, each with those that its files import from; a folder within another counts as one of its own. */
function foldersOf(workspace: string): Map<string, Set<string>> {
  const graph = new Map<string, Set<string>>()
  for (const { path, tree } of sources.filter((s) => s.path.startsWith(`${workspace}/src/`))) {
    const from = posix.dirname(path)
    const to = graph.get(from) ?? new Set<string>()
    graph.set(from, to)
    for (const s of tree.statements) {
      if (!ts.isImportDeclaration(s) && !ts.isExportDeclaration(s)) continue
      const of = s.moduleSpecifier && ts.isStringLiteral(s.moduleSpecifier) ? s.moduleSpecifier.text : ''
      const target = posix.dirname(posix.join(from, of))
      const ends = [from, target].some((f) => f === `${workspace}/src`)
      if (of.startsWith('.') && target !== from && !ends) to.add(target)
    }
  }
  return graph
}

describe('the house', () => {
  it('has no folders that import each other in a circle, a folder and one within it neither', () => {
    for (const workspace of ['core', 'contract', 'server', 'web']) {
      const graph = foldersOf(workspace)
      const reach = (from: string, seen = new Set<string>()): Set<string> => {
        for (const to of graph.get(from) ?? []) if (!seen.has(to)) reach(to, seen.add(to))
        return seen
      }
      expect([...graph.keys()].filter((f) => reach(f).has(f))).toEqual([])
    }
  })
  it('asks for parts, never for the kind of a machine or the name of a calculator', () => {
    // People are trained for a kind of machine: there the kind itself is what is asked about.
    const itself = ['core/src/people/may-operate.ts']
    // A calculator is found by its name in the address of its page.
    const byAddress = ['web/src/calculators/presentations.ts']
    const found = sources
      .filter(
        ({ path }) => !/^core\/src\/(parts|rating|catalogue|wording)\//.test(path) && ![...itself, ...byAddress].includes(path),
      )
      .flatMap(({ path, tree }) =>
        nodesOf(tree)
          .filter((n) => isKindOrName(n) && asked(n))
          .map((n) => where(path, tree, n)),
      )
    expect(found).toEqual([])
    expect(sources.length).toBeGreaterThan(300)
  })
  it('has no table with a shape: a table says its own axes', () => {
    const found = sources.flatMap(({ path, tree }) =>
      nodesOf(tree)
        .filter((n) => ts.isPropertyAccessExpression(n) && n.name.text === 'shape' && /table|chart/i.test(n.expression.getText()))
        .map((n) => where(path, tree, n)),
    )
    expect(found).toEqual([])
  })
  it('has no function in core of sixty lines', () => {
    const long = inCore.flatMap(({ path, tree }) =>
      nodesOf(tree).flatMap((n) => {
        if (!ts.isFunctionLike(n) || !('body' in n) || !n.body) return []
        const line = (at: number) => tree.getLineAndCharacterOfPosition(at).line
        const lines = line(n.end) - line(n.getStart(tree)) + 1
        return lines >= 60 ? [`${where(path, tree, n)} ${lines}`] : []
      }),
    )
    expect(long).toEqual([])
  })
  it('casts at its edges only: fewer than thirty times in core', () => {
    const casts = inCore.flatMap(({ path, tree }) =>
      nodesOf(tree)
        .filter((n) => ts.isAsExpression(n) && n.type.getText() !== 'const')
        .map((n) => where(path, tree, n)),
    )
    expect(casts.length, casts.join('\n')).toBeLessThan(30)
    const asserted = inCore.flatMap(({ path, tree }) =>
      nodesOf(tree)
        .filter(ts.isNonNullExpression)
        .map((n) => where(path, tree, n)),
    )
    expect(asserted).toEqual([])
  })
  it('uses no word that was retired', () => {
    // docs/terms.md. Fields of calculators keep their names.
    const retired = new Set(
      `mend mends Mend sums Sums SumPage doubtOf doubt legSetting LegSetting legsOf mishap Mishap knock bubbleProved barsTo heed handOn
       radiusKnown isCrane unsaid beyondTable walkMark zonesOf tail_m`.split(/\s+/),
    )
    const found = sources.flatMap(({ path, tree }) =>
      nodesOf(tree)
        .filter((n) => (ts.isIdentifier(n) || ts.isStringLiteral(n)) && retired.has(n.text))
        .map((n) => `${where(path, tree, n)} ${n.getText()}`),
    )
    expect(found).toEqual([])
  })
  it('shows no label that was retired', () => {
    const labels = ['Sums', 'Quick sums', 'Heed', 'Something happened', 'It has grown', 'Work with it', 'Reads otherwise now?']
    const retired = new RegExp(
      [...labels, 'As if it hung', 'Prove the bubble'].map((l) => `(^|\\W)${l.replace('?', '\\?')}(\\W|$)`).join('|'),
    )
    const found = sources.flatMap(({ path, tree }) =>
      nodesOf(tree)
        .filter((n) => (ts.isStringLiteralLike(n) || ts.isJsxText(n) || ts.isTemplateHead(n)) && retired.test(n.text))
        .map((n) => `${where(path, tree, n)} ${n.getText()}`),
    )
    expect(found).toEqual([])
  })
})
