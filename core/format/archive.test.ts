import { expect, test } from '@jest/globals'
import { MOST_PHOTO_BYTES, MOST_PHOTOS } from '#core/job/sections/photos/schema'
import { MOST_SPACES } from '#core/job/sections/spaces/schema'
import { archiveNameOf, checkEntries, hashOfEntry, JOB_ENTRY, photoEntry, type Entry } from './archive'
import { MOST_ARCHIVE_BYTES } from './archiveSize'
import { LONGEST_FILE } from './plainMatch'

const hash = (k: number) => k.toString(16).padStart(64, '0')
const job: Entry = { name: JOB_ENTRY, sizeBytes: 1000 }
const photo = (k: number, sizeBytes = 1000): Entry => ({ name: photoEntry(hash(k)), sizeBytes })

test('what an archive of a job holds, and no more', () => {
  checkEntries([job, { name: 'photos/', sizeBytes: 0 }, photo(1), photo(2, MOST_PHOTO_BYTES)])
  checkEntries([job, ...Array.from({ length: MOST_PHOTOS }, (_, k) => photo(k))])
  expect([hashOfEntry(photoEntry(hash(7))), hashOfEntry(JOB_ENTRY), archiveNameOf('a-boat.plainmatch.json')]).toEqual([hash(7), null, 'a-boat.plainmatch.zip'])
  expect(MOST_ARCHIVE_BYTES).toBeGreaterThan(LONGEST_FILE + (MOST_PHOTOS + MOST_SPACES) * MOST_PHOTO_BYTES)
})

test.each<[string, Entry[], RegExp]>([
  ['no job', [photo(1)], /no job in this archive/],
  ['another file', [job, { name: 'readme.txt', sizeBytes: 1 }], /“readme.txt” does not belong/],
  ['a way out of the folder', [job, { name: '../photos/x.jpg', sizeBytes: 1 }], /does not belong/],
  ['a photo under another name', [job, { name: 'photos/boat.jpg', sizeBytes: 1 }], /does not belong/],
  ['one twice', [job, photo(1), photo(1)], /twice/],
  ['too many', [job, ...Array.from({ length: MOST_PHOTOS + MOST_SPACES + 1 }, (_, k) => photo(k))], /More than 600 pictures/],
  ['a photo too large', [job, photo(1, MOST_PHOTO_BYTES + 1)], /larger than a photo/],
  ['a job too large', [{ ...job, sizeBytes: LONGEST_FILE + 1 }], /larger than 20 MB/],
])('refused: %s', (_, entries, says) => expect(() => checkEntries(entries)).toThrow(says))
