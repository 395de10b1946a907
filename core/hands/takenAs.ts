/**
 * Names of parts that are drawn before anybody knows what hangs there. Whoever says what it is, by naming it or by setting what it does, takes the name
 * away.
 */
export const TAKEN_AS = {
  tap: 'taken as 10 W: not known yet',
  nominal: 'taken as 8 Ω: not known yet',
  transformer: 'taken as one for 8 Ω: not known yet',
  members: 'taken as two coils: not known yet',
  curve: 'taken as its label: not known yet',
  coil: 'taken as one of two coils: not known yet',
  cabinet: 'taken as four drivers with a switch: not known yet',
  motional: 'figures of a usual unit: not from its sheet yet',
} as const

const ALL: ReadonlySet<string> = new Set(Object.values(TAKEN_AS))

/** Whether a part stands for one of which nothing is known yet. */
export const isTakenAs = ({ name }: { name: string }): boolean => ALL.has(name)

/** A change as a hand makes it: who says what a part does has said what hangs there, and the name that told of a guess goes. */
export function saidOf<T extends { name?: string }>(part: { name: string }, to: T, isSaid: boolean): T {
  return isSaid && to.name === undefined && isTakenAs(part) ? { ...to, name: '' } : to
}
