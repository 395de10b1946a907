import { expect, test } from '@jest/globals'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { speakersOf } from '#core/job/tree'
import { disagreementWords, hereWords, newsWords } from './togetherWords'

const job = jobOf('4 x 5 W on 70 V 60 W')
const ids = nodeIds(outputOf(job))
const label = outputOf(job).label
const speaker = speakersOf(outputOf(job).wiring)[1]!.label
const nameOf = (who: string | null) => who ?? 'the desk'
const other = (who: string | null, nodeId: string | null, by = 'w', station = 'check', outputId: string | null = 'out1') => ({ by, who, station, outputId, nodeId })

test.each<[string, ReturnType<typeof other>[], string[]]>([
  ['nobody', [], []], ['at a speaker, and at the desk', [other('Anna', ids[1]!), other(null, null, 'd', 'match')], [`Anna at ${label} ${speaker} (check)`, `the desk at ${label} (match)`]],
  ['two windows of one at one place', [other('Anna', ids[1]!), other('Anna', ids[1]!, 'w2')], [`Anna at ${label} ${speaker} (check)`]], ['where nothing is chosen, or it is gone', [other('Ben', 'gone', 'w', 'space', null)], ['Ben (space)']],
])('who is here: %s', (_, others, said) => expect(hereWords(job, others, nameOf)).toEqual(said))

test('news of each, the newest first, with how many', () => {
  const item = (id: string, who: string | null) => ({ id, by: 'x', who, says: `did ${id}` })
  expect(newsWords([item('1', 'Anna'), item('2', null), item('3', 'Anna'), item('4', 'Ben')], nameOf)).toEqual([
    { id: '4', name: 'Ben', count: 1, last: 'did 4' }, { id: '3', name: 'Anna', count: 2, last: 'did 3' }, { id: '2', name: 'the desk', count: 1, last: 'did 2' }])
})

test('two who cannot both be right, with the place, the kind and whose', () => {
  const read = (who: string, ohm: number) => ({ id: who, at: '2026-05-04T09:00:00Z', kind: 'coil-dcr' as const, outputId: 'out1', nodeId: ids[1]!, value: { is: 'ohm' as const, ohm }, note: '', frequencyHz: null, supersedes: null, taken: null, who, withdrawn: false })
  const { says, key } = disagreementWords(job, { outputId: 'out1', nodeId: ids[1]!, earlier: read('Anna', 6.2), later: read('Ben', 40) }, nameOf)
  expect([key, says.replace(/^\S+ \S+, /, '')]).toEqual(['Anna Ben', 'coil DCR: 6.2 Ω by Anna, 40 Ω by Ben.'])
})
