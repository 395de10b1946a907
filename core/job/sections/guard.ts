import { same } from '#core/quantity/same'
import { JobError } from '../jobError'
import { refuse, WHOLE } from '../refusal'

/** What every section's edits are guarded with. */

/** `to`, once it is sure that every field still is what the edit says it was. */
export function guarded<T extends object>(what: string, now: object, { was, to }: { was: T, to: T }): T {
  const current = now as Record<string, unknown>
  for (const field of Object.keys(to)) {
    if (!(field in was)) refuse({ code: 'not-valid', message: `“${field}” is set without saying what it was` })
  }
  for (const [field, value] of Object.entries(was)) {
    if (!same(current[field], value)) refuse({ code: 'changed-meanwhile', what, field, was: value, now: current[field] })
  }
  return to
}

/** What is taken away whole is what the edit says it was; null says nothing of it. */
export function guardedWhole(what: string, now: object, was: object | null): void {
  if (was !== null && !same(now, was)) refuse({ code: 'changed-meanwhile', what, field: WHOLE, was, now })
}

/** The setting edit that takes this one back. A `was` wider than its `to` guards more than it sets: so does its undo. */
export function changedBack<E extends { was: object, to: object }>(now: object, edit: E): E {
  const current = now as Record<string, unknown>
  const before = Object.fromEntries(Object.keys(edit.to).map(field => [field, current[field]]))
  return { ...edit, was: { ...edit.was, ...edit.to }, to: before }
}

export function inserted<T>(list: readonly T[], index: number, item: T): T[] {
  const at = Math.min(index, list.length)
  return [...list.slice(0, at), item, ...list.slice(at)]
}

/** Runs a check of a document; what it finds at fault is the refusal. */
export function valid(check: () => void): void {
  try {
    check()
  }
  catch (error) {
    if (error instanceof JobError) refuse({ code: 'not-valid', message: error.message })
    throw error
  }
}
