import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { defineShape } from '../shape'
import { TURNED } from './hows'
import { BESIDE_KINDS, HEARD, ONLY_AT_HEAD, READ_ANYWHERE, SEEN_KINDS, SWAPPED_KINDS, TURNED_KINDS } from './kinds'
import { LOUDNESS, MOST_READINGS, readingSchema, SEEN, SOUNDS, SWAPPED } from './schema'

export const readings = defineShape({
  name: 'readings',
  fields: { readings: z.array(readingSchema).max(MOST_READINGS) },
  empty: { readings: [] },
  edits: [
    z.strictObject({ kind: z.literal('reading.add'), reading: readingSchema }),
    z.strictObject({ kind: z.literal('reading.withdraw'), readingId: idText, withdrawn: z.boolean() }),
  ],
  things: ['reading'],
  grows: {
    list: 'readings', entry: readingSchema, most: MOST_READINGS, add: 'reading', withdraw: 'readingId', corrects: 'supersedes',
    together: [
      [{ key: 'kind', oneOf: ONLY_AT_HEAD }, { key: 'nodeId', isNull: true }, { key: 'kind', oneOf: READ_ANYWHERE }],
      [{ key: 'kind', oneOf: HEARD }, { key: 'value.is', oneOf: SOUNDS }],
      [{ key: 'kind', oneOf: TURNED_KINDS }, { key: 'value.is', oneOf: TURNED }],
      [{ key: 'kind', oneOf: BESIDE_KINDS }, { key: 'value.is', oneOf: LOUDNESS }],
      [{ key: 'kind', oneOf: SEEN_KINDS }, { key: 'value.is', oneOf: SEEN }],
      [{ key: 'kind', oneOf: SWAPPED_KINDS }, { key: 'value.is', oneOf: SWAPPED }],
    ],
  },
})
