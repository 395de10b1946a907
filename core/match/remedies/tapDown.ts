import { retap } from '#core/job/intents'
import { together, type SimpleEdit } from '#core/job/edits'
import { lineAfter, type RemedyMaker } from './remedy'

/**
 * The smallest cut of taps that brings the line under its limit: one step at one speaker where that is enough, the
 * one that gives up least, the farthest of equals; else one step each from the far end on.
 */
export const tapDown: RemedyMaker = ({ job, line, finding }) => {
  if (finding.code !== 'reserve-short' && finding.code !== 'taps-over-amplifier') return []
  const allowedW = finding.code === 'reserve-short' ? finding.facts.allowedW : finding.facts.ratedW
  const steps = [...line.speakers].reverse().flatMap((speaker) => {
    const edit = retap(job, speaker.id, -1)
    if (edit?.kind !== 'speaker.set' || edit.to.load?.kind !== 'tap' || speaker.load.kind !== 'tap') return []
    return [{ speaker, edit, savesW: speaker.load.tapW - edit.to.load.tapW, tapW: edit.to.load.tapW }]
  })
  const overW = line.tapsW! - allowedW
  const one = steps.filter(s => s.savesW >= overW - 1e-9).sort((a, b) => a.savesW - b.savesW)[0]
  let chosen = one ? [one] : []
  if (!one) {
    let savedW = 0
    for (const step of steps) {
      if (savedW >= overW) break
      chosen.push(step)
      savedW += step.savesW
    }
    if (savedW < overW - 1e-9) chosen = []
  }
  const edit = together(chosen.map(s => s.edit as SimpleEdit))
  if (!edit) return []
  const after = lineAfter(job, line.outputId, edit)
  if (after.findings.some(f => f.code === 'taps-over-amplifier')) return []
  return [{ code: 'tap-down', edit, facts: { code: 'tap-down', labels: chosen.map(s => s.speaker.label).reverse(), tapW: chosen[0]!.tapW, tapsW: after.tapsW ?? 0 } }]
}
