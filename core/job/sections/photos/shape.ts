import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { MOST_PHOTOS, photoSchema } from './schema'

export const photos = defineShape({
  name: 'photos',
  fields: { photos: z.array(photoSchema).max(MOST_PHOTOS) },
  empty: { photos: [] },
  edits: [
    z.strictObject({ kind: z.literal('photo.add'), photo: photoSchema }),
    z.strictObject({ kind: z.literal('photo.withdraw'), photoId: idText, withdrawn: z.boolean() }),
  ],
  things: ['photo'],
  grows: { list: 'photos', entry: photoSchema, most: MOST_PHOTOS, add: 'photo', withdraw: 'photoId', corrects: null, together: [] },
})
