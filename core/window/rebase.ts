import { applyEdit } from '#core/job/apply'
import { isRemoval, type Edit } from '#core/job/edits'
import { EditRefused, WHOLE, type Refusal } from '#core/job/refusal'
import type { Job } from '#core/job/schema'
import { same } from '#core/quantity/same'

/** More fields than any edit sets. */
const MOST_TRIES = 20

/** The edit with its `was` brought to what is there now, so that it can be done after all. */
export function onTop(job: Job, edit: Edit): Edit {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    try {
      applyEdit(job, edit)
      return edit
    }
    catch (error) {
      if (!(error instanceof EditRefused) || error.refusal.code !== 'changed-meanwhile') return edit
      edit = withWas(edit, error.refusal)
    }
  }
  return edit
}

function withWas(edit: Edit, { field, was, now }: Extract<Refusal, { code: 'changed-meanwhile' }>): Edit {
  const change = (part: Edit): Edit => {
    if (part.kind === 'batch') return { ...part, edits: part.edits.map(e => change(e) as typeof e) }
    if (part.kind === 'lead.set') return field === 'lead' && same(part.was, was) ? { ...part, was: now as typeof part.was } : part
    if (part.kind === 'through.set') return field === 'through' && same(part.was, was) ? { ...part, was: now as typeof part.was } : part
    if (isRemoval(part)) return field === WHOLE && same(part.was, was) ? { ...part, was: null } : part
    if (!('was' in part) || !(field in part.was) || !same((part.was as Record<string, unknown>)[field], was)) return part
    return { ...part, was: { ...part.was, [field]: now } } as Edit
  }
  return change(edit)
}
