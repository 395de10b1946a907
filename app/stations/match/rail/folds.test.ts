import { describe, expect, test } from '@jest/globals'
import { proveLine } from '#core/check/proof'
import { unstatedModel } from '#core/gear/models'
import type { Edit } from '#core/job/edits'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { makeEvaluator } from '#core/line/evaluate'
import { jobOf } from '#core/testing/jobs'
import { closedFolds, isFolding, rangeText, stopsOf, stretchesOf } from './folds'

const edited = (job: Job, ...edits: Edit[]) => edits.reduce((j, edit) => applyEdit(j, edit).job, job)
const plan = jobOf('9 x 5 W on 70 V')
const id = (k: number) => plan.amplifiers[0]!.outputs[0]!.wiring.children[k - 1]!.node.id
const numbers = (job: Job) => {
  const [line] = makeEvaluator()(job).lines
  const order = line!.output.wiring.children.map(b => b.node.id)
  return stretchesOf(line!, proveLine(job, line!.output, line!.predicted)).map(ids => ids.map(i => order.indexOf(i) + 1).join(''))
}
const read = (k: number, ohm: number | null, n = ''): Edit => ({ kind: 'reading.add', reading: {
  id: `r${k}${n}`, at: `2026-05-04T09:0${n || 0}:00Z`, kind: ohm === null ? 'sound' : 'coil-dcr', outputId: 'out1', nodeId: id(k), value: ohm === null ? { is: 'plays' } : { is: 'ohm', ohm },
  note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
} })
const set = (k: number, to: object): Edit => ({ kind: 'speaker.set', nodeId: id(k), was: Object.fromEntries(Object.keys(to).map(f => [f, (plan.amplifiers[0]!.outputs[0]!.wiring.children[k - 1]!.node as never)[f]])), to })

test.each<[string, Job, string[]]>([
  ['all alike', plan, ['123456789']], ['a name in the middle stands out', edited(plan, set(5, { name: 'x' })), ['1234', '6789']],
  ['labels do not part them', edited(plan, set(5, { label: 'x' })), ['123456789']],
  ['a tap, a rating, a driver do', edited(plan, set(2, { load: { kind: 'tap', tapW: 10, ratedV: 70.71, tapsW: [1.25, 2.5, 5, 10, 20, 30], insertionDb: null, tapMeans: null } }), set(7, { continuousW: 3 }), set(6, { driverOhm: 4 })), []],
  ['of what kind it is does', edited(plan, { kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'k', from: null, model: unstatedModel('speaker', 'K') } }, set(5, { kindId: 'k' })), ['1234', '6789']],
  ['three are too few', edited(plan, set(4, { name: 'x' })), ['56789']],
  ['read right, side by side, is a stretch of its own', edited(plan, read(1, null), read(2, null), read(3, null), read(4, null)), ['1234', '56789']],
  ['read wrong stands by itself', edited(plan, set(5, { driverOhm: 8 }), ...[1, 2, 3, 4, 6, 7, 8, 9].map(k => set(k, { driverOhm: 8 })), read(5, 60)), ['1234', '6789']],
  ['so does what is repaired', edited(plan, { kind: 'repair.add', repair: { id: 'f', at: '2026-05-04T10:00:00Z', outputId: 'out1', nodeId: id(5), fault: 'open-at-drop', note: '', who: null, withdrawn: false } }), ['1234', '6789']],
  ['members of a group are not on the rail', jobOf('((8 + 8 + 8 + 8) || 8)'), []],
])('stretches: %s', (_, job, expected) => expect(numbers(job)).toEqual(expected))

test.each<[number, Parameters<typeof isFolding>[1], boolean]>([[3, undefined, false], [4, undefined, true], [1, 'folded', true], [9, 'open', false]])('%d rows, wished %s: folded %s', (rows, wish, folded) =>
  expect(isFolding(rows, wish)).toBe(folded))

describe('a fold is open while it is looked into', () => {
  const stretches = [['a', 'b', 'c', 'd'], ['f', 'g', 'h', 'i']]
  test.each<[string, string | null, string, string, string]>([
    ['nothing of it selected', 'e', '', '', 'abcd fghi'], ['the rail itself', null, '', '', 'abcd fghi'], ['one of it', 'b', '', '', 'fghi'], ['all of it chosen', 'a', 'abcd', '', 'abcd fghi'], ['all of it and more', 'e', 'abcdef', '', 'abcd'],
    ['part of it chosen, another looked at', 'e', 'eab', '', 'fghi'], ['a suspect in it', null, '', 'h', 'abcd'],
    ['its end, where too few are left', 'd', '', '', 'fghi'],
  ])('%s', (_, nodeId, chosen, suspects, expected) =>
    expect(closedFolds(stretches, { nodeId, chosen: new Set(chosen), suspects: new Set(suspects) }).map(f => f.join('')).join(' ')).toBe(expected))
  test.each<[string, string | null, string, string]>([
    ['its first looked at', 'a', '', 'bcde'], ['its last looked at', 'e', '', 'abcd'], ['all but its last chosen', 'a', 'abcd', 'abcd'], ['all but its first', 'b', 'bcde', 'bcde'],
    ['one within', 'c', '', ''], ['two at its end', 'e', 'de', ''], ['both ends', 'a', 'ae', ''], ['the rail', null, '', 'abcde'],
  ])('five, %s', (_, nodeId, chosen, expected) =>
    expect(closedFolds([[...'abcde']], { nodeId, chosen: new Set(chosen), suspects: new Set() }).map(f => f.join('')).join(' ')).toBe(expected))
  test('stops of the arrow keys', () => expect(stopsOf([...'abcdefghij'], stretches).map(s => s.join(''))).toEqual(['abcd', 'e', 'fghi', 'j']))
})

test.each<[(number | null)[], string]>([[[4.2, 5, 4.6], '4.2–5.0'], [[5, 5.01], '5.0'], [[5, null], '—'], [[], '—']])('range of %j is %s', (values, text) => expect(rangeText(values, v => v.toFixed(1))).toBe(text))
