import { drained } from '#core/quantity/steps'
import { partsOf, type Edit, type SimpleEdit } from './edits'
import { refuse } from './refusal'
import type { Job } from './schema'
import { ruleOf, SECTIONS } from './sections'
import type { EditRule, Reference } from './sections/section'

/** A job after an edit, and the edit that takes it back. */
export interface Applied { job: Job, inverse: Edit }

/**
 * How an edit comes: new from a hand; taking back what was done, which may name again what counts as none when it is gone; or taken in
 * already, so that nothing it names is asked for once more.
 */
export type Coming = 'new' | 'undo' | 'taken'

/**
 * Applies one edit. Pure: the device and the server run the same function and get the same job.
 * @throws EditRefused when the edit does not fit the job as it now is; nothing is changed then
 */
export function applyEdit(job: Job, edit: Edit, coming: Coming = 'new'): Applied {
  return drained(applyInSteps(job, edit, coming))
}

/** The same, a part a step: a server can answer others in between. */
export function* applyInSteps(job: Job, edit: Edit, coming: Coming = 'new'): Generator<void, Applied> {
  const inverses: SimpleEdit[] = []
  const references: Reference[] = []
  let current = job
  for (const part of partsOf(edit)) {
    const rule = ruleOf(part)
    const applied = rule.apply(current, part)
    noneTaken(current, rule.makes(part))
    if (coming !== 'taken') {
      noneNames(current, part, rule)
      references.push(...rule.refersTo(part))
    }
    current = applied.job
    inverses.push(applied.inverse)
    yield
  }
  // At the end: a part may name what a later one brings.
  allThere(current, references, coming === 'undo')
  return { job: current, inverse: edit.kind === 'batch' ? { kind: 'batch', edits: inverses.reverse() } : inverses[0]! }
}

/** Refuses ids that stand in the job already, or twice in the list. */
function noneTaken(job: Job, ids: readonly string[]): void {
  const wanted = new Set<string>()
  for (const id of ids) {
    if (wanted.has(id) || SECTIONS.some(section => section.has(job, id))) refuse({ code: 'already-there', id })
    wanted.add(id)
  }
}

/** Whether the job has what is named. */
export function isThere(job: Job, { what, id }: Reference): boolean {
  return SECTIONS.some(section => (section.shape.things as readonly string[]).includes(what) && section.has(job, id))
}

function allThere(job: Job, references: readonly Reference[], isUndo: boolean): void {
  for (const reference of references) {
    if (!(isUndo && reference.isLoose) && !isThere(job, reference)) refuse({ code: 'not-there', what: reference.what, id: reference.id })
  }
}

/** What others still name is not taken away under them. */
function noneNames(job: Job, part: SimpleEdit, rule: EditRule<SimpleEdit, SimpleEdit>): void {
  const freed = rule.frees?.(job, part)
  if (!freed) return
  const counts = new Map<string, number>()
  for (const section of SECTIONS) {
    for (const { what, id, by } of section.names(job)) if (what === freed.what && id === freed.id) counts.set(by, (counts.get(by) ?? 0) + 1)
  }
  const all = [...counts.values()].reduce((sum, count) => sum + count, 0)
  const by = [...counts].map(([one, count]) => `${count} ${one}${count === 1 ? '' : 's'}`).join(' and ')
  if (all > 0) refuse({ code: 'not-valid', message: freed.stillNamed(by, all === 1) })
}
