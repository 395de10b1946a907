import { crossAt, spliceAt } from '#core/hands/splices'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Job, Leaving } from '#core/job/schema'
import type { Correction, PolarityGroup } from './report'
import { swapWords } from './words'

/** What follows once a pair was swapped, or is left as it is. */

export interface Done { at: string, newId: () => string }

/**
 * A swap that somebody made: it is kept as a repair, so that what was read before counts no more and is read again; and drawn, where it was the drawing
 * that had it crossed. Where what was read contradicts the drawing, the crossing lay somewhere that nobody drew, and the drawing is right from now on.
 */
export function swapped(job: Job, { line, joint, turns }: Correction, { at, newId }: Done): Edit | null {
  const known = turns.filter(t => t.taken !== null)
  const isDrawnSo = joint.turn !== null && known.length > 0 && known.every(t => t.drawn === t.taken)
  const drawn = isDrawnSo ? crossAt(job, joint) : null
  return together([
    ...drawn ? partsOf(drawn) : [],
    {
      kind: 'repair.add', repair: {
        id: newId(), at, outputId: line.output.id, nodeId: joint.nodeId, fault: joint.at === 'coil' ? 'coil-opposed' : 'turned-round',
        note: swapWords(job, { line, joint }), who: null, withdrawn: false,
      },
    } satisfies SimpleEdit,
  ])
}

/** Every speaker of a group that is turned round stays so, with the reason: it stays on the list of what was left. */
export function leftSo(job: Job, group: PolarityGroup, reason: string, { at, newId }: Done): Edit | null {
  const minority = fewerOf(group)
  const seen = new Set<string>()
  return together(minority.flatMap(({ speaker, line }): SimpleEdit[] => {
    if (seen.has(speaker.id)) return []
    seen.add(speaker.id)
    const read = [...job.readings.under(line.output.id)].filter(r => r.nodeId === speaker.id && 'how' in r.value && !r.withdrawn).at(-1)
    const leaving: Leaving = { id: newId(), at: read && read.at > at ? read.at : at, outputId: line.output.id, nodeId: speaker.id, kind: read?.kind ?? 'polarity', reason, who: null, withdrawn: false }
    return [{ kind: 'leaving.add', leaving }]
  }))
}

/** Those of a group that lie otherwise than the most of it; of two halves those that are reversed. */
function fewerOf({ leaves }: PolarityGroup): PolarityGroup['leaves'] {
  const known = leaves.filter(l => l.taken !== null && !l.isLeft)
  const reversed = known.filter(l => l.taken === 1)
  return reversed.length * 2 <= known.length ? reversed : known.filter(l => l.taken === 0)
}

/** Of a unit of several coils: nothing was said of them; said straight, they are drawn. */
export function stateCoils(job: Job, nodeId: string, count: number): Edit | null {
  const { coils } = spliceAt(job, nodeId)
  return coils === null
    ? { kind: 'splice.set', nodeId, was: { coils }, to: { coils: Array.from({ length: count }, () => 'straight' as const) } }
    : { kind: 'splice.set', nodeId, was: { coils }, to: { coils: null } }
}
