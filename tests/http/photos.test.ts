import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createHash } from 'node:crypto'
import { strFromU8, unzipSync } from 'fflate'
import { writeJobFile } from '#core/format/plainMatch'
import { Records } from '#core/job/records'
import type { Photo } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { makeDatabase, startServer, type RunningServer, type TestDatabase } from '../support/server'

let database: TestDatabase
let server: RunningServer
beforeAll(async () => {
  database = await makeDatabase()
  server = await startServer(database.url)
}, 60_000)
afterAll(async () => {
  await server.stop()
  await database.drop()
})

/** The smallest thing that begins and ends as a JPEG. */
const jpeg = (filling: string) => Buffer.concat([Buffer.from([0xFF, 0xD8, 0xFF, 0xE0]), Buffer.from(filling), Buffer.from([0xFF, 0xD9])])
const sha = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
const post = async (path: string, body: unknown) => {
  const response = await fetch(`${server.url}/api${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
  return { status: response.status, answer: await response.json() as { hash?: string, error?: { message: string } } }
}

test('a photo is kept once under the hash of its bytes, and given out as it is', async () => {
  const bytes = jpeg('one')
  for (let k = 0; k < 2; k++) expect(await post('/photos', { base64: bytes.toString('base64') })).toEqual({ status: 200, answer: { hash: sha(bytes) } })
  const got = await fetch(`${server.url}/api/photos/${sha(bytes)}`)
  expect([got.status, got.headers.get('content-type'), got.headers.get('x-content-type-options'), Buffer.from(await got.arrayBuffer()).equals(bytes)]).toEqual([200, 'image/jpeg', 'nosniff', true])
  expect((await fetch(`${server.url}/api/photos/${'0'.repeat(64)}`)).status).toBe(404)
  expect((await fetch(`${server.url}/api/photos/..%2Fhealth`)).status).toBe(404)
})

test.each<[string, string, number, RegExp]>([
  ['no JPEG', Buffer.from('<svg onload=alert(1)>').toString('base64'), 422, /no JPEG/],
  ['cut short', jpeg('x'.repeat(50)).subarray(0, 40).toString('base64'), 422, /only a part/],
  ['too large', jpeg('x'.repeat(400_000)).toString('base64'), 422, /400 kB/],
  ['no base64', '!!!', 422, /base64/],
])('refused: %s', async (_, base64, status, says) => {
  const { status: was, answer } = await post('/photos', { base64 })
  expect([was, answer.error?.message]).toEqual([status, expect.stringMatching(says)])
})

test('an archive: the document and the pictures that are kept, each once; withdrawn ones and those not kept are not in it', async () => {
  const [kept, gone] = [jpeg('kept'), jpeg('withdrawn')]
  for (const bytes of [kept, gone]) await post('/photos', { base64: bytes.toString('base64') })
  const job = jobOf('8')
  const photo = (id: string, hash: string, withdrawn = false): Photo => ({ id, at: '2026-05-04T09:00:00Z', outputId: 'out1', nodeId: nodeIds(outputOf(job))[0]!, repairId: null, hash, widthPx: 16, heightPx: 12, caption: '', who: null, withdrawn })
  const photos = Records.of([photo('a', sha(kept)), photo('b', sha(kept)), photo('c', sha(gone), true), photo('d', 'f'.repeat(64))])
  const id = '6f1c0f7e-9d0a-4c55-8a41-0d3b5b1f0a11'
  await post('/jobs', { id, from: 'file', text: writeJobFile({ ...job, name: 'Boat', photos }) })
  const response = await fetch(`${server.url}/api/jobs/${id}/archive`)
  const files = unzipSync(new Uint8Array(await response.arrayBuffer()))
  expect([response.headers.get('content-type'), Object.keys(files).sort()]).toEqual(['application/zip', ['job.plainmatch.json', `photos/${sha(kept)}.jpg`]])
  expect([Buffer.from(files[`photos/${sha(kept)}.jpg`]!).equals(kept), (JSON.parse(strFromU8(files['job.plainmatch.json']!)) as { photos: Photo[] }).photos.length]).toEqual([true, 4])
  expect((await fetch(`${server.url}/api/jobs/00000000-0000-4000-8000-000000000000/archive`)).status).toBe(404)
})
