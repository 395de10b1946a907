import { freeLabel } from '#core/hands/intents'
import { together, type SimpleEdit } from '#core/job/edits'
import type { RemedyMaker } from './remedy'

/** Of speakers that bear one number the first keeps it; each other takes the lowest that is free. */
export const numberAnew: RemedyMaker = ({ line, finding }) => {
  if (finding.code !== 'labels-repeat') return []
  const taken = new Set(line.speakers.map(s => s.label))
  const kept = new Set<string>()
  const renumbered: { from: string, to: string }[] = []
  const edits = line.speakers.flatMap(({ id, label }): SimpleEdit[] => {
    if (!kept.has(label)) {
      kept.add(label)
      return []
    }
    const to = freeLabel(taken)
    taken.add(to)
    renumbered.push({ from: label, to })
    return [{ kind: 'speaker.set', nodeId: id, was: { label }, to: { label: to } }]
  })
  return [{ code: 'number-anew', edit: together(edits)!, facts: { code: 'number-anew', renumbered } }]
}
