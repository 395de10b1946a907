import type { FaultKind } from '#core/job/schema'
import type { Swapped } from '#core/job/sections/readings/schema'
import type { Outcome } from './outcome'

/** What is seen where somebody looks, and what follows a unit that is changed for another. */

/** Something is taken for a fault that is none as often as this, whatever it is taken for. Common practice, no source. */
const MISTAKEN = 0.01
/** Kinds that may be mistaken at one place, more or less. */
const KINDS_AT_A_PLACE = 8

/** What somebody who looks at a place finds: a kind of fault, or null for nothing amiss. `nodeId` null: the rack. */
export function lookChance(found: FaultKind | null, nodeId: string | null, { faults, definitions }: Pick<Outcome, 'faults' | 'definitions'>): number {
  const here = definitions.filter((d, k) => faults[k]!.nodeId === nodeId && d.looks !== undefined)
  const none = here.reduce((p, d) => p * (1 - d.looks!), 1)
  if (found === null) return none * (1 - MISTAKEN)
  const all = here.reduce((sum, d) => sum + d.looks!, 0)
  const it = here.find(d => d.kind === found)
  return it ? (1 - none) * it.looks! / all : none * MISTAKEN / KINDS_AT_A_PLACE
}
/** The same of something that is not in the list. Common practice, no source. */
export const lookAnything = (found: FaultKind | null): number => found === null ? 0.8 : 0.2 / KINDS_AT_A_PLACE

/** Whoever hears whether it went is wrong as often as this. Common practice, no source. */
const MISHEARD = 0.05
/** Whether what is wrong goes with the unit: half of the times where nothing is wrong there at all. */
export function swapChance(is: Swapped, nodeId: string, { faults, definitions }: Pick<Outcome, 'faults' | 'definitions'>): number {
  if (faults.length === 0) return 0.5
  return swapHeard(is, definitions.some((d, k) => d.isOfUnit === true && faults[k]!.nodeId === nodeId))
}
/** The same where what is wrong is elsewhere. */
export const swapElsewhere = (is: Swapped): number => swapHeard(is, false)
const swapHeard = (is: Swapped, goes: boolean): number => (is === 'goes-with-it') === goes ? 1 - MISHEARD : MISHEARD
