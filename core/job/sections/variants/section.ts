import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { changedBack, guarded, inserted, valid } from '../guard'
import { noneTaken } from '../ids'
import type { Section } from '../section'
import { checkWiring } from '../wiring/check'
import type { variantEdits } from './edits'
import { MOST_VARIANTS, type Variant } from './schema'

const found = (job: Job, variantId: string): Variant => job.variants.find(v => v.id === variantId) ?? refuse({ code: 'not-there', what: 'variant', id: variantId })

export const variants: Section<typeof variantEdits> = {
  name: 'variants',
  keeps: 'document',
  apply: {
    'variant.add': (job, { index, variant }) => {
      noneTaken(job, [variant.id])
      if (job.variants.length >= MOST_VARIANTS) refuse({ code: 'too-many', what: 'variants', most: MOST_VARIANTS })
      valid(() => checkWiring(variant.amplifiers))
      return { job: { ...job, variants: inserted(job.variants, index, variant) }, inverse: { kind: 'variant.remove', variantId: variant.id } }
    },
    'variant.remove': (job, { variantId }) => {
      const variant = found(job, variantId)
      return { job: { ...job, variants: job.variants.filter(v => v !== variant) }, inverse: { kind: 'variant.add', index: job.variants.indexOf(variant), variant } }
    },
    'variant.set': (job, edit) => {
      const variant = found(job, edit.variantId)
      const changed = { ...variant, ...guarded(`the variant “${variant.name}”`, variant, edit) }
      return { job: { ...job, variants: job.variants.map(v => v === variant ? changed : v) }, inverse: changedBack(variant, edit) }
    },
  },
  words: { 'variant.add': 'variant kept', 'variant.remove': 'variant let go', 'variant.set': 'variant renamed' },
  fields: {},
}
