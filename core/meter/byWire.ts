import { factsOf, type ReadingKind } from '#core/job/sections/readings/kinds'

/**
 * Whether an ohmmeter by wire reads this kind: copper, and what is open. An impedance is asked with a tone, which an ohmmeter has not: its figure would be
 * another, and look as if it were right.
 */
export function readsByWire(kind: ReadingKind): boolean {
  const { value, isCopper } = factsOf(kind)
  return value === 'ohm' && (isCopper || kind === 'leg-earth')
}
