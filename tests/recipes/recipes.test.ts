import { existsSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { resolve } from 'node:path'
import { beforeAll, describe, expect, jest, test } from '@jest/globals'
import type TypeScript from 'typescript'

/**
 * docs/recipes.md is true: changes are planted by their first lines, and the compiler names every other file of each recipe that must
 * follow, none that no recipe lists. All are planted at once, since a program takes a while; each complaint is told apart by what it speaks of.
 * What a test says in place of the compiler is said in the recipe.
 */

jest.setTimeout(180_000)
const ts = createRequire(import.meta.url)('typescript') as typeof TypeScript
const SECTIONS = 'core/job/sections/'

/** Another section, as a copy of a small one that does the same with things called crates. */
const crate = (file: string) => readFileSync(`${SECTIONS}zones/${file}`, 'utf8').replaceAll('zone', 'crate').replaceAll('Zone', 'Crate').replaceAll('ZONE', 'CRATE')

interface Recipe {
  name: string
  /** What is planted: the file, what stands there (null: it is new), what comes in its place. */
  plants: [file: string, from: string | null, to: string][]
  /** What complaints of it speak of. */
  speaksOf: RegExp
  /** Files that the compiler then names. */
  names: string[]
}
const RECIPES: Recipe[] = [
  { name: 'a fault', plants: [[`${SECTIONS}repairs/schema.ts`, '\'something-else\',\n', '\'something-else\', \'control-stuck\',\n']], speaksOf: /control-stuck/, names: ['core/check/faultWords.ts'] },
  {
    name: 'a reading kind', speaksOf: /dampness/, names: ['core/check/gradeWords.ts', 'core/check/signs.ts', 'core/check/words.ts', 'core/trace/evidence.ts'],
    plants: [[`${SECTIONS}readings/kinds.ts`, '  \'sound\': {', '  \'dampness\': { at: \'speaker\', value: \'ohm\', amplifier: \'off\', isCopper: true, isOfTone: false, phase: \'hang\', proves: false },\n  \'sound\': {']],
  },
  {
    name: 'a sound', speaksOf: /'late'|"late"|\blate\b|undefined/, names: ['core/check/verdict.ts', 'core/check/words.ts', 'core/trace/ears.ts'],
    plants: [[`${SECTIONS}readings/schema.ts`, '\'comes-and-goes\'] as const', '\'comes-and-goes\', \'late\'] as const']],
  },
  {
    name: 'a kind of amplifier', speaksOf: /tube/i, names: ['core/amplifier/kinds/index.ts'],
    plants: [
      ['core/amplifier/rating.ts', 'export type OutputRating = ', 'export interface TubeRating { kind: \'tube\', powerW: number }\n\nexport type OutputRating = TubeRating | '],
      [`${SECTIONS}wiring/schema.ts`, '  z.strictObject({ kind: z.literal(\'not-known\') }),', '  z.strictObject({ kind: z.literal(\'not-known\') }), z.strictObject({ kind: z.literal(\'tube\'), powerW: watt }),'],
    ],
  },
  {
    name: 'a section', speaksOf: /crate/, names: [`${SECTIONS}index.ts`, 'core/testing/everyEdit.ts'],
    plants: [
      ...['schema.ts', 'shape.ts', 'section.ts'].map((file): [string, null, string] => [`${SECTIONS}crates/${file}`, null, crate(file)]),
      [`${SECTIONS}shapes.ts`, 'import { variants }', 'import { crates } from \'./crates/shape\'\nimport { variants }'], [`${SECTIONS}shapes.ts`, 'drawer, tickets,', 'drawer, tickets, crates,'],
    ],
  },
  { name: 'a finding', plants: [['core/line/finding.ts', '\'unequal-shares\':', '\'too-warm\': { watts: number }, \'unequal-shares\':']], speaksOf: /too-warm/, names: ['core/line/words.ts'] },
]

const planted = new Map<string, string>()
let complaints: { file: string, says: string }[] = []
beforeAll(() => {
  for (const [file, from, to] of RECIPES.flatMap(r => r.plants)) {
    const stands = planted.get(resolve(file)) ?? (from === null ? '' : readFileSync(file, 'utf8'))
    if (from !== null && !stands.includes(from)) throw new Error(`“${from}” does not stand in ${file} any more`)
    planted.set(resolve(file), from === null ? to : stands.replace(from, to))
  }
  complaints = complaintsOfAll()
})

function complaintsOfAll(): { file: string, says: string }[] {
  const { options, fileNames } = ts.parseJsonConfigFileContent(JSON.parse(readFileSync('tsconfig.tools.json', 'utf8')), ts.sys, process.cwd())
  const own = { ...options, composite: false, incremental: false }
  const host = ts.createCompilerHost(own)
  const [read, source] = [host.readFile.bind(host), host.getSourceFile.bind(host)]
  host.readFile = name => planted.get(resolve(name)) ?? read(name)
  host.fileExists = name => planted.has(resolve(name)) || ts.sys.fileExists(name)
  host.directoryExists = name => name.endsWith('/crates') || ts.sys.directoryExists(name)
  host.getSourceFile = (name, version, ...more) => {
    const text = planted.get(resolve(name))
    return text === undefined ? source(name, version, ...more) : ts.createSourceFile(name, text, version)
  }
  const roots = fileNames.filter(name => /\/(core|cli)\//.test(name) && !name.endsWith('.test.ts'))
  const program = ts.createProgram({ rootNames: [...roots, ...[...planted.keys()].filter(name => !existsSync(name))], options: own, host })
  return [...program.getSyntacticDiagnostics(), ...program.getSemanticDiagnostics()].flatMap(d => d.file
    ? [{ file: d.file.fileName.slice(process.cwd().length + 1), says: `${ts.flattenDiagnosticMessageText(d.messageText, ' ')} ${d.file.text.slice(d.start, d.start! + d.length!)}` }]
    : [])
}

describe('each change, by its first lines', () => {
  test.each(RECIPES.map(recipe => [recipe.name, recipe] as const))('%s: the compiler names what must follow, and the recipe lists it', (name, { speaksOf, names }) => {
    const found = [...new Set(complaints.filter(c => speaksOf.test(c.says)).map(c => c.file))].sort()
    expect(found).toEqual(expect.arrayContaining(names))
    const recipe = readFileSync('docs/recipes.md', 'utf8').split('\n').find(line => line.startsWith(`| ${name} |`))!
    for (const file of names) expect([file, recipe.includes(file.split('/').at(-1)!)]).toEqual([file, true])
  })
  test('nothing else is named: no place that a recipe does not know', () => {
    const known = new Set(RECIPES.flatMap(r => r.names))
    expect(complaints.filter(c => !known.has(c.file))).toEqual([])
    expect(complaints.length).toBeGreaterThanOrEqual(RECIPES.length)
  })
})
