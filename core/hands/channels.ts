import { isSolidState } from '#core/amplifier/index'
import { same } from '#core/quantity/same'
import type { ChannelMode } from '#core/amplifier/rating'
import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import { addOutput, type NewId } from './intents'
import type { Job } from '#core/job/schema'
import { findOutput } from '#core/job/tree'

/**
 * Two channels of an amplifier as one output: bridged, or side by side. The output beside it goes, which must be empty and of the same
 * rating; parted again, it comes back behind. Null where nothing changes; a sentence where it cannot be.
 */
export function joinChannels(job: Job, outputId: string, mode: ChannelMode, newId: NewId): Edit | string | null {
  const found = findOutput(job, outputId)
  if (!found || !isSolidState(found.output.rating)) return null
  const { amplifier, output } = found
  const { rating } = found.output
  if (!isSolidState(rating) || rating.mode === mode) return null
  const set: SimpleEdit = { kind: 'output.set', outputId, was: { rating }, to: { rating: { ...rating, mode } } }
  if (rating.mode !== 'single' && mode !== 'single') return set
  const at = amplifier.outputs.findIndex(o => o.id === outputId)
  if (mode === 'single') {
    const added = addOutput(job, amplifier.id, newId)
    if (added?.edit.kind !== 'output.add') return set
    return together([set, { ...added.edit, index: at + 1, output: { ...added.edit.output, rating: { ...rating, mode: 'single' } } }])
  }
  const beside = [amplifier.outputs[at + 1], amplifier.outputs[at - 1]].filter(o => o !== undefined)
  const free = beside.find(o => o.wiring.children.length === 0 && same(o.rating, rating))
  if (free) return together([set, { kind: 'output.remove', outputId: free.id, was: free }])
  return beside.length === 0
    ? `${output.label} is the only channel of ${amplifier.name}: two are joined.`
    : `The channel beside ${output.label} must be empty and rated like it: ${beside.map(o => o.label).join(' and ')} ${beside.length === 1 ? 'is' : 'are'} not.`
}
