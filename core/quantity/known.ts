/** For what must be there by the way things are built: a mistake of ours is told at its place, and not later as something undefined. */

/** The value that is there. @throws Error with `what` where there is none */
export function sure<T>(value: T | null | undefined, what: string): T {
  if (value === null || value === undefined) throw new Error(`There is no ${what}.`)
  return value
}

/** The entry of a list that has it. @throws Error with the id where none has */
export function byId<T extends { id: string }>(list: readonly T[], id: T['id']): T {
  return sure(list.find(entry => entry.id === id), `entry “${id}” in this list`)
}
