import { partsOf, type Edit, type SimpleEdit } from './edits'
import type { Job } from './schema'
import { SECTIONS } from './sections'

/** A job after an edit, and the edit that takes it back. */
export interface Applied { job: Job, inverse: Edit }

type ApplyOne = (job: Job, edit: SimpleEdit) => { job: Job, inverse: SimpleEdit }

const APPLY = Object.assign({}, ...SECTIONS.map(section => section.apply)) as Record<SimpleEdit['kind'], ApplyOne>

/**
 * Applies one edit. Pure: the device and the server run the same function and get the same job.
 * @throws EditRefused when the edit does not fit the job as it now is; nothing is changed then
 */
export function applyEdit(job: Job, edit: Edit): Applied {
  const steps = applyInSteps(job, edit)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The same, a part a step: a server can answer others in between. */
export function* applyInSteps(job: Job, edit: Edit): Generator<void, Applied> {
  const inverses: SimpleEdit[] = []
  let current = job
  for (const part of partsOf(edit)) {
    const applied = APPLY[part.kind](current, part)
    current = applied.job
    inverses.push(applied.inverse)
    yield
  }
  return { job: current, inverse: edit.kind === 'batch' ? { kind: 'batch', edits: inverses.reverse() } : inverses[0]! }
}
