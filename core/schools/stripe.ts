import type { StripeSchoolId } from './stripeIds'

/** One school of which conductor of a pair is the plus one. */
export interface StripeSchool {
  id: StripeSchoolId
  name: string
  says: string
  /** Where it is usual. */
  suits: string
}

/** Source of both: common practice, no source. They contradict each other, between trades and between makes: a test proves it, never the colour. */
export const STRIPE_SCHOOLS = [
  {
    id: 'plain-is-plus', name: 'the striped one is minus', says: 'of a pair of one colour the plain conductor is plus',
    suits: 'harnesses of vehicles and boats, and most printed terminal lists, which name a pair by its plain colour. Pairs with colours are most often such harnesses, and so it is chosen where nothing is said',
  },
  {
    id: 'striped-is-plus', name: 'the striped one is plus', says: 'of a pair the conductor with the stripe or the print is plus',
    suits: 'loose speaker cable, where one of two like conductors is marked',
  },
] as const satisfies readonly StripeSchool[]

export function stripeSchool(id: StripeSchoolId): StripeSchool {
  return STRIPE_SCHOOLS.find(school => school.id === id)!
}
