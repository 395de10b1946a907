import { refuse } from '../../refusal'
import { findPlace } from '../../tree'
import { growingRules, placedBy } from '../growing'
import { none, type Section } from '../section'
import type { Photo } from './schema'
import { photos as shape } from './shape'

const isPlaced = placedBy(findPlace)

const { add, withdraw } = growingRules({
  shape,
  entryOf: (edit: { kind: 'photo.add', photo: Photo }) => edit.photo,
  withdrawal: (photoId, withdrawn) => ({ kind: 'photo.withdraw' as const, photoId, withdrawn }),
  idOf: ({ photoId, withdrawn }) => ({ id: photoId, withdrawn }),
  fits: (job, photo, isNew) => {
    if (isNew && !isPlaced(job, photo)) refuse(photo.nodeId === null ? { code: 'not-there', what: 'output', id: photo.outputId } : { code: 'not-there', what: 'speaker', id: photo.nodeId })
  },
  words: { add: 'photo', withdraw: 'photo taken off' },
})

export const photos: Section<'photos'> = {
  shape,
  edits: { 'photo.add': add, 'photo.withdraw': withdraw },
  fields: {},
  lists: { photos: (_, number) => `photo no. ${number}` },
  has: (job, id) => job.photos.get(id) !== undefined,
  ids: ({ photos }) => photos.map((photo, k) => [photo.id, `photos[${k}].id`] as const),
  names: none,
  isPlaced,
}
