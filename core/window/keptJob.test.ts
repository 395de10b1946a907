import { readFileSync } from 'node:fs'
import { expect, test } from '@jest/globals'
import { toDocument } from '#core/job/document'
import { FORMAT_VERSION } from '#core/job/schema'
import { jobOf } from '#core/testing/jobs'
import { MOST_KEPT, readKeptJob, withKept, writeKeptJob, type KeptJob } from './keptJob'

const job = { ...jobOf('8'), name: 'Hall' }

test('a job goes out and comes in as it was; what cannot be read is none', () => {
  const log = [{ id: 'a', by: 'me', who: null, undoes: null, edit: { kind: 'job.set' as const, was: { name: 'x' }, to: { name: 'Hall' } }, inverse: { kind: 'job.set' as const, was: { name: 'Hall' }, to: { name: 'x' } } }]
  const text = writeKeptJob({ jobId: 'j', revision: 4, confirmed: job, log })
  expect([readKeptJob(text), readKeptJob('{'), readKeptJob('{"job":{}}'), readKeptJob('{"job":{"version":99}}')]).toEqual([
    { id: 'j', revision: 4, archivedAt: null, job: toDocument(job), log }, null, null, null,
  ])
})

test('one that an older program kept is brought up; what could be undone there is not offered', () => {
  const old = JSON.parse(readFileSync('tests/samples/job-version-15.plainmatch.json', 'utf8')) as object
  const read = readKeptJob(JSON.stringify({ id: 'j', revision: 43, archivedAt: null, job: old, log: [{ id: 'of version 15' }] }))!
  expect([read.job.version, read.revision, read.log, read.job.amplifiers[0]!.inputs.length]).toEqual([FORMAT_VERSION, 43, [], 1])
})

test('so many are kept; pinned ones and those with something to send stay, however old', () => {
  let list: KeptJob[] = []
  for (let k = 1; k <= MOST_KEPT + 4; k++) list = withKept(list, { jobId: `j${k}`, name: '', keptAt: k }, new Set()).list
  expect(list.map(k => k.jobId)).toEqual(Array.from({ length: MOST_KEPT }, (_, k) => `j${MOST_KEPT + 4 - k}`))
  const pinned = list.map(k => k.jobId === 'j5' ? { ...k, isPinned: true } : k)
  const next = withKept(pinned, { jobId: 'new', name: 'n', keptAt: 99 }, new Set(['j6']))
  expect([next.gone, next.list[0], next.list.length]).toEqual([[], { jobId: 'new', name: 'n', keptAt: 99, isPinned: false }, MOST_KEPT + 1])
  expect(withKept(next.list, { jobId: 'newer', name: '', keptAt: 100 }, new Set(['j6'])).gone).toEqual([])
  expect(withKept(next.list, { jobId: 'newer', name: '', keptAt: 100 }, new Set()).gone).toEqual(['j6'])
  // Kept anew it moves up, and stays pinned.
  expect(withKept(next.list, { jobId: 'j5', name: 'x', keptAt: 101 }, new Set()).list[0]).toEqual({ jobId: 'j5', name: 'x', keptAt: 101, isPinned: true })
})
