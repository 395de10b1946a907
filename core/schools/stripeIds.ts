/** The schools of stripes by name alone: the document's schema stands on every page, what they say does not. */
export const STRIPE_IDS = ['plain-is-plus', 'striped-is-plus'] as const
export type StripeSchoolId = typeof STRIPE_IDS[number]
export const DEFAULT_STRIPE: StripeSchoolId = 'plain-is-plus'
