import { likenessOf } from '#core/quantity/same'
import { together, type SimpleEdit } from '#core/job/edits'
import type { Speaker } from '#core/job/schema'
import { exceeds } from '#core/quantity/tolerance'
import { lineAfter, type Remedy, type RemedyMaker } from './remedy'

/**
 * Taps down until the line is under its limit. Equals go together: all of one kind where that is enough, of several kinds the one
 * whose cut gives up least; else every speaker of the line. One speaker alone, where one step is enough, comes last, and says
 * that it is then quieter than its neighbours.
 */
export const tapDown: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'reserve-short' && finding.code !== 'taps-over-amplifier') return []
  const isCured = (after: ReturnType<typeof lineAfter>) => !after.findings.some(f => f.code === 'reserve-short' || f.code === 'taps-over-amplifier')

  /** So many steps down for each of these; null where that does not cure, or one of them has no lower tap. */
  const down = (speakers: readonly Speaker[], steps: number, facts: { isAll: boolean, isAlone: boolean }): Remedy | null => {
    const edits = speakers.map(speaker => stepsDown(speaker, steps))
    if (edits.some(e => e === null)) return null
    const edit = together(edits as SimpleEdit[])
    if (!edit) return null
    const after = lineAfter(job, line.outputId, edit)
    if (!isCured(after)) return null
    const tapsW = new Set(edits.map(e => e?.kind === 'speaker.set' && e.to.load?.kind === 'tap' ? e.to.load.tapW : null))
    return {
      code: 'tap-down', edit,
      facts: {
        code: 'tap-down', labels: speakers.map(s => s.label), name: speakers[0]!.name, tapW: tapsW.size === 1 ? [...tapsW][0]! : null,
        drawW: after.drawW ?? 0, ...facts,
      },
    }
  }
  const stepsDown = (speaker: Speaker, steps: number): SimpleEdit | null => {
    if (speaker.load.kind !== 'tap') return null
    const lower = speaker.load.tapsW.filter(w => w < (speaker.load as { tapW: number }).tapW).sort((a, b) => b - a)
    const tapW = lower[steps - 1]
    return tapW === undefined ? null : { kind: 'speaker.set', nodeId: speaker.id, was: { load: speaker.load }, to: { load: { ...speaker.load, tapW } } }
  }

  const live = line.speakers.filter(s => s.load.kind === 'tap' && s.load.tapW > 0)
  const kinds = alike(live)
  const remedies: Remedy[] = []
  for (let steps = 1; steps <= MOST_STEPS && remedies.length === 0; steps++) {
    const ofKinds = kinds.flatMap(speakers => down(speakers, steps, { isAll: kinds.length === 1, isAlone: false }) ?? [])
    const ofAll = ofKinds.sort((a, b) => drawOf(b) - drawOf(a))[0] ?? down(live, steps, { isAll: true, isAlone: false })
    if (ofAll) remedies.push(ofAll)
  }
  // The farthest of equals: there the wire takes most.
  const alone = live.length < 2 ? [] : [...live].reverse().flatMap(speaker => down([speaker], 1, { isAll: false, isAlone: true }) ?? [])
  const least = alone.reduce<Remedy | null>((best, one) => best === null || exceeds(drawOf(one), drawOf(best)) ? one : best, null)
  if (least && !remedies.some(r => r.facts.code === 'tap-down' && r.facts.labels.length === 1)) remedies.push(least)
  return remedies
}

const MOST_STEPS = 3

/** Speakers of one kind on one tap, together. */
function alike(speakers: readonly Speaker[]): Speaker[][] {
  const kinds = new Map<string, Speaker[]>()
  for (const speaker of speakers) {
    const kind = likenessOf([speaker.name, speaker.load])
    kinds.set(kind, [...kinds.get(kind) ?? [], speaker])
  }
  return [...kinds.values()]
}

function drawOf({ facts }: Remedy): number {
  return facts.code === 'tap-down' ? facts.drawW : 0
}
