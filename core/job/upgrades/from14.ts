import { DEFAULT_STRIPE } from '#core/schools/stripeIds'
import { DEFAULT_CHECKS } from '../sections/checks/schema'
import { isFields, type Upgrade } from './step'

/**
 * Version 14 knew neither conductors nor which way round a speaker is, and asked for the same readings everywhere. Version 15 names what a job asks
 * for: what was asked before, and which way round besides, so that nothing counts as proved that nobody has read. Which of a pair is
 * plus goes by the rule of a new job; there are no pairs yet that it could turn.
 */
export const asksForPolarity: Upgrade = {
  document: document => ({
    document: { ...document, checks: DEFAULT_CHECKS, ...isFields(document.practice) ? { practice: { ...document.practice, stripe: DEFAULT_STRIPE } } : {} },
    remarks: [],
  }),
  edit: edit => edit,
}
