import { runs } from '#core/testing/runs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import type { AmplifierModel } from '#core/gear/amplifier'
import { unstatedModel } from '#core/gear/models'
import { applyEdit } from '#core/job/apply'
import { Records } from '#core/job/records'
import type { Input, Job, Output, Reading } from '#core/job/schema'
import { UNSTATED_INPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { counter, jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { evaluateJob } from '#core/line/evaluate'
import { applySet, type OfferedAmplifier } from './amplifiersEdit'
import { findAmplifiers } from './amplifierFinder'
import { solverOf, type SolveLp } from './lp'

let solve: SolveLp
beforeAll(async () => { solve = solverOf(await highsLoader()) })

const lines = (count: number, powerW: number): AmplifierModel['outputs'][number] => ({ count, points: [], lines: [{ lineV: 70.71, powerW }], floorOhm: null, valve: null })
const offered = (name: string, price: number, ...outputs: AmplifierModel['outputs']): OfferedAmplifier =>
  ({ model: { ...unstatedModel('amplifier', name), outputs, price, highPassHz: 60 }, from: { modelId: `m-${name}`, version: 2, passed: null } })
const four = offered('Four', 500, lines(4, 240))
const shape = (job: Job) => job.amplifiers.map(a => `${a.name}: ${a.outputs.map(o => `${o.label}${o.wiring.children.length > 0 ? '' : ' empty'}${o.rating.kind === 'constant-voltage' ? ` ${o.rating.powerW}` : ''}`).join(', ')}`)
async function put(job: Job, ...models: OfferedAmplifier[]) {
  const found = await findAmplifiers(job, models.map(m => m.model), solve)
  const applied = applySet(job, found.sets[0]!, models, counter('n'))
  return { applied, after: applied.edit ? applyEdit(job, applied.edit).job : job }
}

describe('a set put into a job', () => {
  test.each<[string, string[], OfferedAmplifier[], string[]]>([
    ['the amplifier of before goes, its lines keep their labels, what is over is empty', ['100 W on 70 V', '80 W on 70 V'], [four], ['Four: A1 240, A2 240, A3 empty 240, A4 empty 240']],
    ['two units of one model', ['100 W on 70 V', '80 W on 70 V', '60 W on 70 V'], [offered('Two', 100, lines(2, 240))], ['Two: A1 240, A2 240', 'Two, no. 2: A3 240, A4 empty 240']],
    ['outputs that are not alike: each line where it is fed', ['40 W on 70 V', '180 W on 70 V'], [offered('Odd', 100, lines(1, 240), lines(1, 60))], ['Odd: A2 240, A1 60']],
    ['what could not be asked for stays where it is', ['100 W on 70 V', '8 || 8'], [four], ['Amplifier A: A2', 'Four: A1 240, A3 empty 240, A4 empty 240, A5 empty 240']],
  ])('%s', async (_, texts, models, wanted) => {
    const job = jobOf(...texts)
    const { applied, after } = await put(job, ...models)
    expect(shape(after)).toEqual(wanted)
    const back = applyEdit(job, applied.edit!)
    expect(applyEdit(back.job, back.inverse).job).toEqual(job)
    expect(after.amplifiers.at(-1)).toMatchObject({ from: models[0]!.from, highPassHz: 60 })
  })

  test('an amplifier of which something was read stays; readings go with their line', async () => {
    const job = jobOf('100 W on 70 V', '40 W on 70 V')
    const [first, second] = outputsOf(job)
    const read = (outputId: string): Reading => ({ id: `r${outputId}`, at: '2026-05-04T09:30:00Z', kind: 'line-impedance', outputId, nodeId: null, value: { is: 'ohm', ohm: 50 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false })
    const outputs = [first!, { ...second!, wiring: { ...second!.wiring, children: [] } }]
    const bare: Job = { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs })), readings: Records.of([read(first!.id), read(second!.id)]) }
    const { applied, after } = await put(bare, four)
    expect([shape(after), applied.removed, applied.moved, applied.added]).toEqual([[expect.stringMatching(/^Amplifier A: A2 empty/), 'Four: A1 240, A3 empty 240, A4 empty 240, A5 empty 240'], [], 1, ['Four']])
    expect([...after.readings].map(r => r.outputId)).toEqual([first!.id, second!.id])
  })

  test('what fed the amplifiers of before feeds the new one, where that is one source', async () => {
    const source = (name: string): Input[] => [{ ...UNSTATED_INPUT, source: { ...UNSTATED_SOURCE, name, volts: 1.2 } }]
    const job = jobOf('100 W on 70 V', '80 W on 70 V')
    const [a] = job.amplifiers
    const two = (first: string, second: string): Job => ({ ...job, amplifiers: [{ ...a!, inputs: source(first), outputs: [a!.outputs[0]!] }, { ...a!, id: 'b', name: 'B', inputs: source(second), outputs: [a!.outputs[1]!] }] })
    const fed = async (j: Job) => (await put(j, four)).after.amplifiers.map(x => x.inputs.map(i => i.source?.name ?? null).join())
    expect([await fed(two('Mixer', 'Mixer')), await fed(two('Mixer', 'Radio')), await fed(job)]).toEqual([['Mixer'], [''], ['']])
  })

  test('an amplifier that fed nothing before stays: somebody put it there', async () => {
    const job = jobOf('100 W on 70 V')
    const spare = { ...job.amplifiers[0]!, id: 'spare', name: 'Spare', outputs: [] }
    expect(shape((await put({ ...job, amplifiers: [...job.amplifiers, spare] }, four)).after).map(s => s.split(':')[0])).toEqual(['Spare', 'Four'])
  })

  test('asked again, nothing is left to do; a line more goes onto what is free; a model of the same name by hand counts where it comes from nowhere', async () => {
    const { after } = await put(jobOf('100 W on 70 V', '80 W on 70 V'), four)
    expect((await put(after, four)).applied).toEqual({ edit: null, added: [], removed: [], moved: 0, unplaced: [] })
    const other = jobOf('60 W on 70 V').amplifiers[0]!
    const renamed = JSON.parse(JSON.stringify({ ...other, id: 'other', name: 'Other', outputs: other.outputs.map(o => ({ ...o, label: 'X1' })) }).replace(/"(o\d+n\d+|out\d+)"/g, '"x$1"')) as typeof other
    const { applied, after: more } = await put({ ...after, amplifiers: [...after.amplifiers, renamed] }, four)
    expect([shape(more), applied.added, applied.removed]).toEqual([['Four: A1 240, A2 240, X1 240, A3 empty 240'], [], ['Other']])
    const nowhere = { ...four, from: null }
    expect((await put((await put(jobOf('100 W on 70 V'), nowhere)).after, nowhere)).applied.edit).toBeNull()
  })
})

test('jobs at random: every line stands once on an output that gives it enough, nobody is lost, one undo brings all back', async () => {
  const chance = seeded(17)
  let many = 0
  for (let n = 0; n < runs(40); n++) {
    const any = (...list: number[]) => list[Math.floor(list.length * chance())]!
    let job = jobOf(...Array.from({ length: any(1, 2, 3, 5, 8) }, () => `${any(30, 60, 120, 160)} W on 70 V`))
    const models = [offered('P', any(100, 300, 900), lines(any(1, 2, 4), any(160, 240))), offered('Q', any(100, 300), lines(1, 240), lines(any(1, 2), 100))]
    for (const round of [0, 1]) {
      const found = await findAmplifiers(job, models.map(m => m.model), solve, { growth: round * 0.1 })
      for (const set of found.sets) {
        const { edit } = applySet(job, set, models, counter(`n${n}${round}`))
        if (!edit) continue
        const { job: after, inverse } = applyEdit(job, edit)
        expect(applyEdit(after, inverse).job).toEqual(job)
        const everyone = (on: Job) => outputsOf(on).flatMap(o => speakersOf(o.wiring).map(s => s.id)).sort()
        expect([n, everyone(after)]).toEqual([n, everyone(job)])
        const powerOf = ({ rating }: Output) => rating.kind === 'constant-voltage' ? rating.powerW! : 0
        const fed = evaluateJob(after).filter(l => l.speakers.length > 0)
        expect([n, fed.every(l => powerOf(l.output) >= l.required.find(r => r.chosen)!.powerW! - 1e-9)]).toEqual([n, true])
        for (const a of after.amplifiers) {
          const { model } = models.find(m => m.from!.modelId === a.from!.modelId)!
          expect(a.outputs.map(powerOf)).toEqual(model.outputs.flatMap(g => Array.from({ length: g.count }, () => g.lines[0]!.powerW)))
        }
        const bought = set.models.flatMap(m => Array.from({ length: m.count }, () => models[m.at]!.from!.modelId))
        expect(after.amplifiers.map(a => a.from!.modelId).sort()).toEqual(bought.sort())
        many++
        if (set === found.sets.at(-1)) job = after
      }
    }
  }
  expect(many).toBeGreaterThan(runs(40) / 2)
}, 60_000)
