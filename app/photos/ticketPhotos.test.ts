import { expect, test } from '@jest/globals'
import { BENCH_ID } from '#core/job/bench'
import { applyEdit } from '#core/job/apply'
import { bench } from '#core/testing/ticket'
import { addingPhoto, ticketPhotos, withdrawingPhoto } from './ticketPhotos'

const photo = { id: 'p', at: '2026-05-04T09:00:00Z', outputId: 't', nodeId: null, repairId: null, hash: 'ab'.repeat(32), widthPx: 800, heightPx: 600, caption: 'tabs', who: null, withdrawn: false }

test('a photo of a ticket is written on it, shown as it was taken, and taken off; one of a job is the job’s', () => {
  const taken = applyEdit(bench(), addingPhoto(BENCH_ID, photo)).job
  expect([ticketPhotos(taken.tickets.under('t')), taken.photos.size]).toEqual([[photo], 0])
  expect(ticketPhotos(applyEdit(taken, withdrawingPhoto(BENCH_ID, 'p')).job.tickets.under('t'))).toEqual([])
  expect([addingPhoto('job', photo), withdrawingPhoto('job', 'p')]).toEqual([{ kind: 'photo.add', photo }, { kind: 'photo.withdraw', photoId: 'p', withdrawn: true }])
})
