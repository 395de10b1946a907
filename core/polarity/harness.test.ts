import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { writeCell } from '#core/gear/cells'
import type { Way } from '#core/gear/harness'
import { spliceAt } from '#core/hands/splices'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import type { Job } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { same } from '#core/quantity/same'
import { always } from '#core/testing/runs'
import { mapOf, pairAt, putMap, waysTo } from './harness'
import { plusOf } from './plus'
import { polarityOf } from './report'

const colour = (text: string) => ({ base: text.split('/')[0]!, stripe: text.split('/')[1] ?? '' })
const way = (name: string, pair: string | null, terminals: [string, string] | null = null): Way => ({ name, terminals, pair: pair === null ? null : pair.split(', ').map(colour) as Way['pair'] })
const after = (job: Job, edit: Edit | null): Job => edit === null ? job : applyEdit(job, edit).job
const named = (...names: string[]): Job => {
  const job = jobOf(...names.map(() => '8 || 8'))
  return { ...job, amplifiers: job.amplifiers.map(a => ({ ...a, outputs: a.outputs.map((o, k) => ({ ...o, name: names[k]! })) })) }
}

describe('which output a way leads to', () => {
  test.each<[string, string[], string[], (string | null)[]]>([
    ['by the name, whatever its case and signs', ['Deck', 'Saloon, port'], ['SALOON port', 'deck'], ['out2', 'out1']],
    ['by the label', ['Deck', 'Saloon'], ['A2', 'A1'], ['out2', 'out1']],
    ['one that nobody knows stays open', ['Deck', 'Saloon'], ['Roof', 'Deck'], [null, 'out1']],
    ['no name known: in order, and no further than there are', ['', ''], ['1', '2', '3'], ['out1', 'out2', null]],
    ['one output has one way', ['Deck', 'Deck'], ['deck', 'deck', 'deck'], ['out1', 'out2', null]],
  ])('%s', (_, outputs, ways, wanted) => expect(waysTo(named(...outputs).amplifiers[0]!, { ways: ways.map(name => way(name, 'red, black')) })).toEqual(wanted))
})

describe('a map put to an amplifier', () => {
  const job = named('Deck', 'Saloon')
  const map = { ways: [way('Deck', 'white, white/black', ['1+', '1-']), way('Saloon', null, ['2+', '2-'])] }
  const put = after(job, putMap(job, map, ['out1', 'out2'], false))
  const lead = (j: Job, output: number, k: number) => spliceAt(j, nodeIds(outputOf(j, output))[k]!)
  test('the pair lies plus on plus at its terminals, which bear what is printed; what the list does not say stays', () => {
    expect(lead(put, 0, 0)).toEqual({ joint: '', pair: map.ways[0]!.pair, start: 'straight', end: 'straight', connector: null, coils: null })
    expect([lead(put, 0, 1).pair, lead(put, 1, 0).pair, put.amplifiers[0]!.outputs.map(o => o.terminals)]).toEqual([null, null, [{ plus: '1+', minus: '1-', connector: null }, { plus: '2+', minus: '2-', connector: null }]])
    expect(polarityOf(put).leaves[0]!.drawn).toBe(0)
  })
  test('the rule of the job gives way to what is printed, for that pair', () => {
    const other = { ways: [way('Deck', 'white/black, white')] }
    const turned = after(job, putMap(job, other, ['out1', null], false))
    const pair = map.ways[0]!.pair!
    expect([plusOf(job, pair), turned.colourExceptions, plusOf(turned, pair), polarityOf(turned).leaves[0]!.drawn]).toEqual([0, [other.ways[0]!.pair], 1, 0])
    expect(put.colourExceptions).toEqual([])
  })
  test('it goes on along the line where that is said, and passes nothing that is named already', () => {
    const run = after(job, putMap(job, map, ['out1', null], true))
    expect([lead(run, 0, 1).pair, lead(run, 1, 0).pair]).toEqual([map.ways[0]!.pair, null])
  })
  test('put again it is nothing to do; undone it is as before', () => {
    expect(putMap(put, map, ['out1', 'out2'], false)).toBeNull()
    const { inverse } = applyEdit(job, putMap(job, map, ['out1', 'out2'], true)!)
    expect(applyEdit(after(job, putMap(job, map, ['out1', 'out2'], true)), inverse).job.amplifiers).toEqual(job.amplifiers)
  })
  test('an output without a speaker has terminals and no lead', () => {
    const outputs = job.amplifiers[0]!.outputs.map(o => ({ ...o, wiring: { ...o.wiring, children: [] } }))
    const bare: Job = { ...job, amplifiers: [{ ...job.amplifiers[0]!, outputs }] }
    expect([pairAt(bare, outputOf(bare)), after(bare, putMap(bare, map, ['out1', null], true)).amplifiers[0]!.outputs[0]!.terminals]).toEqual([null, { plus: '1+', minus: '1-', connector: null }])
  })
})

test('what is made of an amplifier, put to one that is bare, makes it the same; crossed at its beginning the plus is the other one', () => {
  const colours = fc.constantFrom('white', 'white/black', 'orange', 'red', 'black', 'orange/black')
  always(fc.property(fc.array(fc.tuple(colours, colours, fc.constantFrom<'straight' | 'crossed'>('straight', 'crossed'), fc.boolean()), { minLength: 1, maxLength: 4 }), (rows) => {
    const bare = named(...rows.map((_, k) => `way ${k % 2}`))
    const job: Job = {
      ...bare, splices: rows.flatMap(([a, b, start], k) => a === b ? [] : [{ nodeId: nodeIds(outputOf(bare, k))[0]!, joint: '', pair: [colour(a), colour(b)], start, end: 'straight', connector: null, coils: null }]),
      amplifiers: bare.amplifiers.map(a => ({ ...a, outputs: a.outputs.map((o, k) => ({ ...o, terminals: rows[k]![3] ? { plus: `${k}+`, minus: `${k}-`, connector: null } : null })) })),
    }
    const map = mapOf(job, job.amplifiers[0]!)
    const outputs = job.amplifiers[0]!.outputs
    const known = outputs.filter(o => pairAt(job, o) !== null || o.terminals !== null)
    if (map === null) return known.length === 0
    expect(writeCell({ cell: 'ways' }, map.ways)).not.toBe('')
    const again = after(bare, putMap(bare, map, known.map(o => o.id), false))
    return outputs.every((o, k) => same([pairAt(job, o), o.terminals], [pairAt(again, outputOf(again, k)), outputOf(again, k).terminals]))
  }))
  const [a, b] = [colour('white'), colour('white/black')]
  const job = named('Deck')
  const crossed: Job = { ...job, splices: [{ nodeId: nodeIds(outputOf(job))[0]!, joint: '', pair: [a, b], start: 'crossed', end: 'straight', connector: null, coils: null }] }
  expect([mapOf(crossed, crossed.amplifiers[0]!)!.ways, mapOf({ splices: crossed.splices.map(s => ({ ...s, start: null })) }, crossed.amplifiers[0]!)]).toEqual([[{ name: 'Deck', terminals: null, pair: [b, a] }], null])
})
