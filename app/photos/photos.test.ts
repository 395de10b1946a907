import { expect, test } from '@jest/globals'
import { sizeWithin } from './scaleDown'
import { readWaiting, writeWaiting, type WaitingPhoto } from './waitingPhoto'

test.each<[number, number, [number, number]]>([[4000, 3000, [1600, 1200]], [3000, 4000, [1200, 1600]], [800, 600, [800, 600]], [10_000, 3, [1600, 1]]])('%s × %s is kept as', (w, h, [width, height]) =>
  expect(sizeWithin(w, h, 1600)).toEqual({ widthPx: width, heightPx: height }))

test('what waits is read again as it was, one of an older page too; what is none of it is left alone', () => {
  const photo = { id: 'p', at: '2026-05-04T09:00:00Z', outputId: 'o', nodeId: null, repairId: 'r', widthPx: 16, heightPx: 12, caption: '', who: null, withdrawn: false }
  const waiting: WaitingPhoto = { jobId: 'j', photo, base64: 'AAAA' }
  const { repairId: _, ...older } = photo
  expect(readWaiting(JSON.stringify({ ...waiting, photo: older }))).toEqual({ ...waiting, photo: { ...photo, repairId: null } })
  expect([readWaiting(writeWaiting(waiting)), readWaiting('{"jobId":1}'), readWaiting('no JSON')]).toEqual([waiting, null, null])
})
