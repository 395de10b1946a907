import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { outputsOf, speakersOf } from '#core/job/tree'
import { jobOf } from '#core/testing/jobs'
import { makeZone } from './zones'
import { reachesOf } from './reach'

const plain = jobOf('5 x 10 W on 70 V', '(8 + 8) || 8')
const [a, b] = outputsOf(plain).map(o => speakersOf(o.wiring))
const barred = applyEdit(plain, makeZone(plain, [a![1]!.id, a![3]!.id], 'Bar', () => 'z')!).job
const zoned = applyEdit(barred, makeZone(barred, [a![4]!.id], 'Yard', () => 'y')!).job
const said = (job: typeof plain, id: string) => reachesOf(job, id).map(({ of, nodeIds }) => `${of} ${nodeIds.map(n => [...a!, ...b!].find(s => s.id === n)!.label).join(' ')}`)
test.each<[string, string[], string[]]>([
  ['the first: behind it is the whole rail', said(plain, a![0]!.id), ['this 01', 'behind 01 02 03 04 05']],
  ['one in the middle', said(plain, a![2]!.id), ['this 03', 'behind 03 04 05', 'rail 01 02 03 04 05']],
  ['the last', said(plain, a![4]!.id), ['this 05', 'rail 01 02 03 04 05']],
  ['one of a zone', said(zoned, a![1]!.id), ['this 02', 'behind 02 03 04 05', 'rail 01 02 03 04 05', 'zone 02 04']],
  ['in a series: what stands behind it there', said(plain, b![0]!.id), ['this 01', 'behind 01 02', 'rail 01 02 03']],
  ['no speaker of this id', said(plain, 'none'), []],
])('%s', (_, found, expected) => expect(found).toEqual(expected))
