import { refuse } from '../../refusal'
import type { Job } from '../../schema'
import { JobError } from '../../jobError'
import { wiringIds } from '../../tree'
import { changedBack, guarded, guardedWhole, inserted, valid } from '../guard'
import { byName, none, type Section } from '../section'
import { checkWiring } from '../wiring/check'
import { MOST_VARIANTS, type Variant } from './schema'
import { variants as shape } from './shape'

const found = (job: Job, variantId: string): Variant => job.variants.find(v => v.id === variantId) ?? refuse({ code: 'not-there', what: 'variant', id: variantId })

/** A wiring of its own, each id once: what an edit makes a file carries. @throws JobError */
function checkVariant(variant: Variant, path: string): void {
  checkWiring(variant.amplifiers, path)
  const own = new Set<string>()
  for (const id of wiringIds(variant)) {
    if (own.has(id)) throw new JobError(`The id “${id}” stands twice.`, path)
    own.add(id)
  }
}

export const variants: Section<'variants'> = {
  shape,
  edits: {
    'variant.add': {
      apply: (job, { index, variant }) => {
        if (job.variants.length >= MOST_VARIANTS) refuse({ code: 'too-many', what: 'variants', most: MOST_VARIANTS })
        valid(() => checkVariant(variant, 'amplifiers'))
        return { job: { ...job, variants: inserted(job.variants, index, variant) }, inverse: { kind: 'variant.remove', variantId: variant.id, was: variant } }
      },
      // Its speakers are those of the job: their ids stand there already. Going over to it lets go of kinds and zones that are gone by then (job/variants.ts).
      makes: ({ variant }) => [variant.id], refersTo: none, words: 'variant kept',
    },
    'variant.remove': {
      apply: (job, { variantId, was }) => {
        const variant = found(job, variantId)
        guardedWhole(`the variant “${variant.name}”`, variant, was)
        return { job: { ...job, variants: job.variants.filter(v => v !== variant) }, inverse: { kind: 'variant.add', index: job.variants.indexOf(variant), variant } }
      },
      makes: none, refersTo: none, words: 'variant let go',
    },
    'variant.set': {
      apply: (job, edit) => {
        const variant = found(job, edit.variantId)
        const changed = { ...variant, ...guarded(`the variant “${variant.name}”`, variant, edit) }
        return { job: { ...job, variants: job.variants.map(v => v === variant ? changed : v) }, inverse: changedBack(variant, edit) }
      },
      makes: none, refersTo: none, words: 'variant renamed',
    },
  },
  fields: {},
  lists: { variants: byName('variant') },
  has: (job, id) => job.variants.some(v => v.id === id),
  ids: ({ variants }) => variants.map((variant, k) => [variant.id, `variants[${k}]`] as const),
  names: none,
  check: ({ variants }) => {
    for (const [k, variant] of variants.entries()) checkVariant(variant, `variants[${k}].amplifiers`)
  },
  ofBatch: kinds => kinds.every(kind => kind === 'amplifier.add' || kind === 'amplifier.remove') && new Set(kinds).size === 2 ? 'wired as another variant' : null,
}
