import { asWired, singleLoads } from '#core/network/tree'
import type { Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { keyOfModel, modelsOn, type Teaches } from './lessons'
import type { LineProof } from './proof'
import { METER_HZ } from './readingBands'

/** What stands on a line and is as it should be, as a lesson for others. `proof` is judged without lessons: nothing learns from what it taught. */
export function taughtBy(output: Output, proof: LineProof): Teaches | null {
  const good = [...proof.standing.values()].filter(j => !j.stale && j.verdict.grade === 'good' && j.reading.value.is === 'ohm')
  if (good.length === 0) return null
  const speakers = new Map(speakersOf(output.wiring).map(s => [s.id, s]))
  const teaches: Teaches = { outputId: output.id, coils: [], line: null }
  for (const { reading, predicted } of good) {
    const ohm = reading.value.is === 'ohm' ? reading.value.ohm : 0
    const speaker = reading.nodeId === null ? undefined : speakers.get(reading.nodeId)
    if (reading.kind === 'coil-dcr' && speaker) {
      const labelOhm = labelOf(speaker)
      if (labelOhm !== null) teaches.coils.push({ key: keyOfModel(output.id, speaker), ohm, labelOhm, place: `${output.label} ${speaker.label}` })
    }
    const [key, ...others] = modelsOn(output)
    if (reading.kind === 'line-impedance' && key !== undefined && others.length === 0 && predicted?.expected != null && predicted.ownSpread !== null) {
      // With its least speaker dead it would still have read right: then the units lie lower than they seem.
      const blind = predicted.cannotTell ? Math.log(predicted.cannotTell.ohm / predicted.expected) : 0
      const own = predicted.ownSpread
      const centre = Math.log(ohm / predicted.expected)
      teaches.line = { key, frequencyHz: reading.frequencyHz ?? METER_HZ, centre, low: Math.hypot(own, blind), high: own, from: output.label }
    }
  }
  return teaches
}

/** What stands on a coil's label, Ω; null where another resistance than a label's part is foretold of it. */
function labelOf({ load, driverOhm }: Speaker): number | null {
  const wired = asWired(load)
  if (wired.kind === 'tap') return driverOhm
  return wired.kind === 'nominal' && singleLoads(load).length === 1 ? wired.nominalOhm : null
}
