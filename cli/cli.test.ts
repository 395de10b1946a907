import { intermittentSchema } from '#core/bench/intermittent'
import { replaceSchema } from '#core/bench/replace'
import { thermalSchema } from '#core/bench/thermal'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { helpOf, run } from './run'
import { walkReportSchema } from '#core/check/walkReport'
import { polarityReportSchema } from '#core/polarity/said'
import { marigold } from '../demo/marigold'
import { VERBS } from './verbs'
import { writeJobFile } from '#core/format/plainMatch'
import { cableReportSchema } from '#core/search/cableSearch'
import loadHighs from 'highs'
import { HIGHS_OPTIONS } from '#core/search/plan/lp'
import { splitReportSchema } from '#core/search/plan/splitReport'
import { cabled, jobOf } from '#core/testing/jobs'
import type { AmplifierModel } from '#core/gear/amplifier'
import { writeCsv, gearCheckSchema } from '#core/gear/csv'
import { amplifiersReportSchema } from '#core/search/plan/amplifiersReport'
import { demoGear } from '../demo/gear'
import { planReportSchema } from '#core/search/plan/planReport'
import { wiringsReportSchema } from '#core/search/wirings/report'
import { clipReportSchema } from '#core/programme/clip'
import { curveReportSchema } from '#core/format/curve'
import { coverReportSchema } from '#core/room/cover'
import { reportSchema } from '#core/line/report'
import { quickAnswerSchema } from '#core/quick/report'
import { writeCode } from '#core/practice/code'
import { demoJobs } from '../demo'

const folder = mkdtempSync(join(tmpdir(), 'cli-'))
const file = (name: string, text: string) => {
  writeFileSync(join(folder, name), text)
  return join(folder, name)
}
async function cli(...args: string[]) {
  const { code, out, remarks } = await run(args)
  return { status: code, answer: JSON.parse(out), remarks }
}

test('from a terminal: one document on standard output, what a file lost beside it, and the exit code', () => {
  const npm = (...args: string[]) => spawnSync('npm', ['run', '--silent', 'cli', '--', ...args], { encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '' } })
  const job = jobOf('8')
  const reading = { id: 'r', at: '2026-05-04T09:30:00Z', kind: 'line-dcr', outputId: 'gone', nodeId: null, value: { is: 'open' }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false }
  const lost = npm('evaluate', file('lost.plainmatch.json', writeJobFile(job).replace('"readings": []', `"readings": [${JSON.stringify(reading)}]`)))
  expect([lost.status, (JSON.parse(lost.stdout) as { lines: unknown[] }).lines.length]).toEqual([0, 1])
  expect(lost.stderr).toContain('1 × reading of output “gone”')
  const none = npm('explode')
  expect([none.status, (JSON.parse(none.stdout) as { error: object }).error]).toMatchObject([2, { message: 'There is no “explode” here.', expected: Object.keys(VERBS) }])
}, 60_000)

test('every verb says what it takes, by itself and among all; docs/cli.md has each example', async () => {
  const all = await run(['--help'])
  const page = readFileSync('docs/cli.md', 'utf8')
  expect([all.code, Object.keys(VERBS).length]).toEqual([0, 20])
  for (const [name, verb] of Object.entries(VERBS)) {
    const own = await run([name, '--help'])
    expect([own.code, own.out]).toEqual([0, helpOf(name)])
    expect(all.out).toContain(own.out)
    expect(page).toContain(`npm run --silent cli -- ${verb.example}`)
    expect(page).toContain(`${name}${name === 'gear' ? '-check' : ''}.schema.json`)
  }
})

test('a boat from a terminal: which way round, the one swap, the walk in its phases, its cables as a table', async () => {
  const boat = file('boat.plainmatch.json', writeJobFile(marigold))
  const { answer } = await cli('polarity', boat)
  const read = polarityReportSchema.parse(answer)
  expect([read.agree, read.speakers.filter(s => s.drawn === 'reversed').map(s => `${s.label} ${s.read}`)]).toEqual([
    { swaps: ['At the roof junction, orange goes to violet, and orange with black to violet with black.', 'At coil 2 of B4 01, swap its two leads.'], proven: false },
    ['B2 03 not read', 'B4 01 coil 2 not read'],
  ])
  const { steps } = walkReportSchema.parse((await cli('walk', boat)).answer)
  expect([[...new Set(steps.map(s => `${s.phase} ${s.amplifier}`))], steps.filter(s => s.kind === 'polarity').length, steps.find(s => s.place === 'B2 01')]).toMatchObject([
    ['hang off', 'closed off', 'on on'], 6, { kind: 'coil-dcr', low: 2.8, high: 3.6, unit: 'Ω' },
  ])
  expect((await cli('walk', boat, '--by', 'moon')).answer).toMatchObject({ error: { message: '“moon” is no order of a walk.' } })
  const csv = join(folder, 'boat.csv')
  const schedule = (await cli('schedule', boat, '--csv', csv)).answer as { runs: { tag: string, conductors: string | null }[], drums: { cuts: object[] }[] }
  expect([schedule.runs.length, schedule.runs.find(r => r.tag === 'B2-01')!.conductors, schedule.drums.flatMap(d => d.cuts).length]).toEqual([10, 'orange, orange/black', 10])
  expect(readFileSync(csv, 'utf8').split('\n')[0]).toBe('tag,from,to,size,conductors,length,with slack,listing,connect\r')
})

test.each<[string, unknown, string, [string, string][]]>([
  ['16 || 16 on valve 50 W at 4/8/16', { tapOhm: 8, bestOhm: 8, lossDb: 0 }, 'single', [['match-exactly', 'good'], ['up-is-safe', 'good']]],
  ['16 on valve 50 W at 4/8/16, tap 8', { tapOhm: 8, bestOhm: 16, lossDb: expect.closeTo(-3.0103, 4) }, 'single', [['match-exactly', 'stop'], ['up-is-safe', 'good']]],
  ['(8 || 8) on 2 x 300 W at 4, from 2 bridged', null, 'bridged', []],
])('quick says the tap, how channels are joined, and both schools: %s', async (text, tap, bridged, schools) => {
  const read = quickAnswerSchema.parse((await cli('quick', text)).answer)
  expect([read.tap, read.bridged, read.schools.map(s => [s.school, s.grade])]).toEqual([tap, bridged, schools])
})

test('quick prints one document of its schema', async () => {
  const { status, answer } = await cli('quick', '12 x 5 W + 2 x 20 W on 70 V 120 W')
  const read = quickAnswerSchema.parse(answer)
  expect([status, read.kind, read.tapsW, read.lineV, read.members.length, read.grade]).toEqual([0, 'constant-voltage', 100, 70.71, 14, 'tight'])
  expect(read.required.map(r => Math.round(r.powerW!))).toEqual([120, 125, 130, 111, 138])
})

test('evaluate does the same for a saved job', async () => {
  const { status, answer } = await cli('evaluate', file('job.plainmatch.json', writeJobFile(demoJobs[0]!.job)))
  const { lines } = reportSchema.parse(answer)
  expect([status, lines.length]).toEqual([0, 5])
  expect(lines[1]).toMatchObject({ label: 'A2', grade: 'tight', findings: [{ code: 'reserve-short' }] })
  expect(lines[1]!.predicted[0]).toMatchObject({ place: 'A2', kind: 'line-impedance', unit: 'Ω' })
})

test('gear check counts the rows of a table that can be taken, and says what is wrong with the rest', async () => {
  const { status, answer } = await cli('gear', 'check', file('ceilings.csv', 'Model,RMS (W),Impedance\nA,30,8\nB,lots,8\nC,20,\n'), '--kind', 'speaker')
  expect([status, gearCheckSchema.parse(answer)]).toEqual([0, { rows: 3, good: 2, bad: [{ row: 3, column: 'RMS (W)', message: '“lots” is not a number of W.' }] }])
})

test('the bench from a terminal: what comes and goes, where a transformer ends, what replaces a unit; a cell that cannot be read is told by its line', async () => {
  const day = (k: number, ohm: string) => `2026-05-0${k}T09:00,${ohm}`
  const comes = intermittentSchema.parse((await cli('intermittent', file('megaphone.csv', ['at,ohm', day(1, '3.3'), day(2, '36'), day(3, 'open'), ''].join('\n')), '--nominal-ohm', '4')).answer)
  expect([comes.verdict, comes.more, comes.says]).toEqual(['comes-and-goes', 0, expect.stringContaining('it is replaced')])
  const run = (rise: number) => ['minute,celsius', ...Array.from({ length: 31 }, (_, k) => `${3 * k},${(20 + rise * (1 - Math.exp(-3 * k / 25))).toFixed(1)}`), ''].join('\n')
  const warm = thermalSchema.parse((await cli('thermal', file('run.csv', run(42)), '--baseline', file('base.csv', run(30)))).answer)
  expect([Math.round(warm.endC), warm.warns, warm.against!.riseRatio.toFixed(2), warm.against!.sure > 0.99, warm.isEnough]).toEqual([62, 'reached', '1.40', true, true])
  const drawer = file('drawer.csv', 'name,impedance,frame,sensitivity,sensitivity at\nNew four,4,130,88,1 W\nEight,8,130,88,1 W\nWide,4,165,90,1 W\n')
  const fits = replaceSchema.parse((await cli('replace', drawer, '--nominal-ohm', '4', '--frame-mm', '130', '--sensitivity-db', '88')).answer)
  expect([fits.fit.map(f => [f.name, f.levelDb]), fits.refused.map(r => r.name)]).toEqual([[['New four', 0]], ['Eight', 'Wide']])
  expect((await cli('thermal', file('bad.csv', 'minute,celsius\n0,20\n5,warm\n'))).answer).toMatchObject({ error: { message: 'Line 3: “warm” is no number of celsius.' } })
  expect((await cli('intermittent', file('bad.csv', 'at,what\n1,2\n'), '--nominal-ohm', '4')).answer).toMatchObject({ error: { message: expect.stringContaining('no column “ohm”') } })
})

test('cable finds the thinnest for a line, one size and falling, and says that it is proven', async () => {
  const saved = file('garden.plainmatch.json', writeJobFile(demoJobs[0]!.job))
  const { status, answer } = await cli('cable', saved, '--line', 'A2', '--limit-db', '0.5', '--sizes', '12,14,16,18')
  const read = cableReportSchema.parse(answer)
  expect([status, read.single!.awg, read.single!.lengthM, read.proven, read.falling!.length, read.worstDb! >= -0.5]).toEqual([0, 16, 76, true, 10, true])
  expect(read.falling!.map(f => f.awg)).toEqual([...read.falling!.map(f => f.awg)].sort((a, b) => a - b))
  expect((await cli('cable', saved, '--line', 'Z9', '--limit-db', '0.5')).answer.error.expected).toEqual(['A1', 'A2', 'A3', 'A4', 'B1'])
})

test('plan gives every space the lowest taps that reach, within what its line may carry; the program can be taken out and solves to the same', async () => {
  const saved = file('rooms.plainmatch.json', writeJobFile(demoJobs[0]!.job))
  const lp = join(folder, 'taps.lp')
  const { status, answer } = await cli('plan', saved, '--lp', lp)
  const read = planReportSchema.parse(answer)
  expect([status, read.feasible, read.proven, read.limits, read.left]).toEqual([0, true, true, [], [{ name: 'Potting shed', why: 'not-all-hang' }]])
  expect(read.spaces.every(s => s.reachedDb >= s.targetDb - 0.05)).toBe(true)
  expect(read.taps.filter(t => t.line === 'A4').map(t => t.tapW)).toEqual([5, 5, 5, 5])
  const highs = await loadHighs()
  expect(highs.solve(readFileSync(lp, 'utf8'), HIGHS_OPTIONS).ObjectiveValue).toBeCloseTo(read.boundW, 6)
})

test('split says which speakers go to which output, and that nothing takes less cable', async () => {
  const saved = file('line.plainmatch.json', writeJobFile(cabled(jobOf('12 x 10 W on 70 V 100 W'), { cable: { awg: 14 }, lengthM: 5 })))
  const { status, answer } = await cli('split', saved, '--line', 'A1', '--into', '2')
  const read = splitReportSchema.parse(answer)
  expect([status, read.feasible, read.proven, read.parts.map(p => p.labels.length).sort(), read.cableM, read.cutSpaces])
    .toEqual([0, true, true, [4, 8], 80, []])
  expect((await cli('split', saved, '--line', 'Z9')).answer.error.expected).toEqual(['A1'])
})

test('amplifiers of a table for all lines of a job: the cheapest set, who feeds what, and why others do not', async () => {
  const saved = file('lines.plainmatch.json', writeJobFile(jobOf('100 W on 70 V', '100 W on 70 V', '40 W on 100 V')))
  const table = file('amps.csv', writeCsv('amplifier', demoGear.flatMap(g => g.kind === 'amplifier' ? [g.body as AmplifierModel] : [])))
  const { status, answer } = await cli('amplifiers', saved, table)
  const read = amplifiersReportSchema.parse(answer)
  expect([status, read.sets[0]!.proven, read.sets[0]!.assignment.map(a => a.line), read.left]).toEqual([0, true, ['A1', 'A2', 'A3'], []])
  expect(read.sets[0]!.price).toBe(Math.min(...read.sets.map(s => s.price)))
  expect(read.refused.find(r => r.model === 'Vehicle amplifier 4 × 60 W')?.why).toMatch(/^reaches [\d.]+ V, A1 is 70\.7 V$/)
})

test('wirings finds every way to wire speakers on an output', async () => {
  const { status, answer } = await cli('wirings', '4 x 8', '--on', '300 W at 4, 180 W at 8, from 4')
  const read = wiringsReportSchema.parse(answer)
  expect([status, read.distinct, read.unfair, read.wirings.map(w => [w.text, w.loadOhm, w.connections])]).toEqual([0, 10, 6, [['8 + 8 + 8 + 8', 32, 5], ['(8 + 8) || (8 + 8)', 8, 6], ['(8 || 8) + (8 || 8)', 8, 7]]])
  expect(read.refused.map(r => r.text)).toEqual(['8 || 8 || 8 || 8'])
  expect(wiringsReportSchema.parse((await cli('wirings', '2 x 8', '--on', '300 W at 4, from 4', '--bridged', 'yes')).answer).wirings.map(w => w.loadOhm)).toEqual([16])
  expect(wiringsReportSchema.parse((await cli('wirings', '8, 4', '--on', '300 W at 2')).answer).wirings).toHaveLength(2)
  const shared = async (text: string, shares: string) => wiringsReportSchema.parse((await cli('wirings', text, '--on', '300 W at 2', '--shares', shares)).answer).wirings.map(w => w.text)
  expect([await shared('8, 4', '2:1'), await shared('8, 4', '1:2'), await shared('8 ohm 100 W, 4 ohm 50 W', 'ratings')]).toEqual([['8 + 4'], ['8 || 4'], ['8 ohm 100 W + 4 ohm 50 W']])
})

test('clip says what an overdriven amplifier gives, and what of it reaches a high-frequency unit', async () => {
  const clip = async (...words: string[]) => clipReportSchema.parse((await cli('clip', '--rated-w', '100', '--overdrive-db', '6', '--crossover-hz', '2500', ...words)).answer)
  const tone = await clip('--material', 'sine')
  expect([tone.totalW, tone.highW, tone.harmonicShare]).toEqual([expect.closeTo(156, 0), expect.closeTo(8, 0), expect.closeTo(0.051, 3)])
  expect(await clip('--material', 'open', '--seed', '4')).toEqual(await clip('--material', 'open', '--seed', '4'))
})

test('curve reads a measured impedance and says what is to be known of it', async () => {
  const read = curveReportSchema.parse((await cli('curve', file('box.txt', '* a box\n20;12,5;30\n200;6,8;-5\n20000;18;40\n'))).answer)
  expect([read.points.length, read.minimumOhm, read.minimumHz, read.nominalOhm, read.problems]).toEqual([3, 6.8, 200, 8, ['Between 20 Hz and 200 Hz there is no point: a dip may hide there.']])
})

const room = (over: Record<string, string> = {}) => ['cover', ...Object.entries({
  'length-m': '18', 'width-m': '9', 'height-m': '3.6', 'ears-m': '1.2', 'angle-deg': '90', 'overlap': 'least', 'sensitivity-db': '89', 'target-db': '76', ...over,
}).flatMap(([name, value]) => [`--${name}`, value])]
test('cover says how many ceiling speakers a floor wants, where, and at what tap', async () => {
  const { status, answer } = await cli(...room({ taps: '0.25,0.5,1' }))
  const read = coverReportSchema.parse(answer)
  expect([status, read.count, read.circleM, read.layout.columns, read.layout.places.length, read.tapW, read.meanDb > 76, read.p10Db < read.meanDb])
    .toEqual([0, 18, 4.8, 6, 18, 0.5, true, true])
  expect(coverReportSchema.parse((await cli(...room())).answer).meanDb).toBeCloseTo(76, 9)
})

test.each([
  [room({ overlap: 'some' }), 0], [room({ 'angle-deg': '180' }), 0], [room({ 'height-m': '1' }), 0], [room({ 'target-db': 'loud' }), 0], [room({ lamp: '3' }), 0], [['cover', 'x'], 0], [['split', 'x.json', '--into', '1.5'], 0], [['amplifiers', 'x.json'], 0], [['plan', 'x.json', '--taps', 'odd'], 0], [['cover', '--length-m'], 0], [[...room(), '--taps', '1', '--taps', '2'], 0], [['wirings', '4 x 8', '--bridged', 'perhaps'], 0], [['quick', '8', '--loud', 'x'], 0],
  [['clip', '--rated-w', '100', '--overdrive-db', '6', '--crossover-hz', '2500', '--material', 'opera'], 0], [['clip', '--rated-w', 'much'], 0], [['curve', join(folder, 'none.txt')], 0], [['curve', file('bad.txt', '20 8\n30 x')], 8], [['wirings', '4 x lamp', '--on', '300 W at 4'], 0], [['wirings', '4 x 8', '--on', '300 W at 4', '--shares', 'most'], 0], [['wirings', '4 x 8', '--shares', '1:2'], 0], [['wirings', '8, 4', '--shares', 'ratings'], 0], [['wirings', '4 x 8', '--channels', '3'], 0], [['wirings', '65 x 8', '--on', ''], 0], [['cable', 'x.json'], 0], [['cable', 'x.json', '--line', 'A1', '--limit-db', 'low'], 0], [['cable', 'x.json', '--line', 'A1', '--limit-db', '1', '--sizes', '99'], 0],
  [['gear'], 0], [['gear', 'check', 'x.csv'], 0], [['gear', 'check', join(folder, 'none.csv'), '--kind', 'speaker'], 0], [['gear', 'check', 'x.csv', '--kind', 'lamp'], 0],
  [['quick', '12 x 5 W'], 8], [['quick', '8 + ('], 5], [['quick'], 0], [['explode'], 0], [[], 0], [['evaluate', join(folder, 'nowhere.json')], 0],
  [['evaluate', file('cut.plainmatch.json', '{"format": "pl')], 14], [['evaluate', file('other.plainmatch.json', '{"format": "x"}')], 'format'],
] as [string[], number | string][])('%j ends with 2 and says where', async (args, position) => {
  const { status, answer } = await cli(...args)
  expect([status, answer.error.position, typeof answer.error.message, Array.isArray(answer.error.expected)]).toEqual([2, position, 'string', true])
})

test('a rig: sealed, the same by its code, played and revealed; what cannot be', async () => {
  const [sealed, again] = [(await cli('rig', '--level', '2', '--seed', '9')).answer, (await cli('rig', '--code', writeCode({ level: 2, seed: 9 }).toLowerCase(), '--solve', '--reveal')).answer]
  expect([sealed.hidden, sealed.played, again.code, again.sealed]).toEqual([null, null, sealed.code, sealed.sealed])
  expect([again.hidden.length, again.played.isFound, again.played.path.at(-1)]).toEqual([1, true, expect.objectContaining({ does: 'name', opens: again.hidden[0].kind, putRight: again.hidden[0].says })])
  for (const [args, says] of [[['--level', '16'], 'from 1 to 15'], [['--code', 'R2-02-00009'], 'of catalogue 2'], [['--code', `${writeCode({ level: 2, seed: 0 }).slice(0, -1)}I`], 'I, L, O, U'], [['--level', '2', '--solve', 'yes'], 'no “yes”']] as const) {
    const { status, answer } = await cli('rig', ...args)
    expect([status, answer.error.message]).toEqual([2, expect.stringContaining(says)])
  }
}, 60_000)
