import { expect, test } from '@jest/globals'
import { writeTable } from '#core/format/tableOut'
import { unstatedModel } from '#core/gear/models'
import { InputError } from '#core/quantity/inputError'
import { counter, jobOf, outputOf } from '#core/testing/jobs'
import { writeClip } from './clip'
import { asKinds, branchesOf } from './pasted'
import { nominalOhmOf } from '#core/network/tree'

const usual = { lineV: 100, cable: { awg: 18 } }
const { children } = outputOf(jobOf('(8 + 8) || 4')).wiring
const text = writeTable(children)
const kinds = (pasted: string, kept: string | null) => branchesOf(pasted, kept, usual, counter('p')).map(({ node }) => node.kind === 'speaker' ? (node.load.kind === 'tap' ? `${node.load.tapW} W at ${node.load.ratedV}` : `${nominalOhmOf(node.load)} Ω`) : node.kind)

test.each<[string, string, string | null, string[]]>([
  ['what was taken here keeps its groups, whatever the clipboard does to line ends', text.replaceAll('\n', '\r\n'), writeClip(text, children), ['series', '4 Ω']],
  ['the same text without it is a table', text, null, ['8 Ω', '8 Ω', '4 Ω']], ['something else was taken last', text, writeClip('other', children), ['8 Ω', '8 Ω', '4 Ω']],
  ['what is kept cannot be read', text, '{', ['8 Ω', '8 Ω', '4 Ω']], ['what is kept is nothing of ours', text, '{"text":"a","branches":[{}]}', ['8 Ω', '8 Ω', '4 Ω']],
  ['taps that do not say their volts', '2 x 20 W', null, ['20 W at 100', '20 W at 100']], ['several that do not say how they are wired', '2 x 8', null, ['8 Ω', '8 Ω']],
  ['a typed line', ' 3 x 5 W on 70 V ', null, ['5 W at 70.71', '5 W at 70.71', '5 W at 70.71']], ['a table’s taps are for the volts of the line it goes to', '5 W\n10 W', null, ['5 W at 100', '10 W at 100']],
])('%s', (_, pasted, kept, wanted) => expect(kinds(pasted, kept)).toEqual(wanted))
test('named like a kind of the job they are of it, where it has the tap; what is not found or lacks is said', () => {
  const model = { ...unstatedModel('speaker', 'Ceiling 165'), nominalOhm: 8, continuousW: 30, scales: [{ lineV: 100, tapsW: [5, 10, 20] }] }
  const [off, ofAnother] = branchesOf('No.\tModel\tTap\nC1\tCeiling 165\toff\nC2\tCeiling 165\t10', null, usual, counter('p'))
  const taken = { ...ofAnother!, node: { ...ofAnother!.node, kindId: 'other' } } as typeof ofAnother & object
  expect(asKinds([off!, taken], [{ what: 'speaker', id: 'k', from: null, model }])).toMatchObject({ branches: [{ node: { kindId: 'k', load: { tapW: 0, tapsW: [5, 10, 20] } } }, { node: { kindId: 'other' } }], said: [] })
  const rows = 'No.\tModel\tTap\nC1\tceiling 165\t10\nC2\tCeiling 165\t7\nC3\tHorn\t15\nC4\tHorn\t15'
  const { branches, said } = asKinds(branchesOf(rows, null, usual, counter('p')), [{ what: 'speaker', id: 'k', from: null, model }])
  const of = branches.map(({ node }) => node.kind === 'speaker' && node.load.kind === 'tap' ? [node.kindId, node.name, node.load.tapW, node.load.tapsW.length, node.continuousW] : node)
  expect(of).toEqual([['k', 'Ceiling 165', 10, 3, 30], ['k', 'Ceiling 165', 7, 7, null], [null, 'Horn', 15, 7, null], [null, 'Horn', 15, 7, null]])
  expect(said).toEqual(['C2: “Ceiling 165” has no tap of 7 W', '“Horn”: no kind of this job is called so; kept as a name'])
})
test('what is none of them', () => expect(() => branchesOf('good morning', null, usual, counter('p'))).toThrow(InputError))
