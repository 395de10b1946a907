import type { Chain, Output, ReadingKind } from '#core/job/schema'
import type { Branch } from '#core/job/sections/wiring/schema'
import { findOnChain } from './onChain'
import { speakersOf } from '#core/job/tree'
import type { Lessons } from './lessons'
import { OF_COPPER, predictLineImpedance, type Predicted } from './predict'

/** What is read besides what proves a line: from a place outward, with volts and amperes at the head, and what a dial stands at. */

/** What hangs from a place on outward, the line opened before it: this place and all behind it on its run. Null where it is not on a run. */
export function outwardFrom(wiring: Chain, nodeId: string): Chain | null {
  const found = findOnChain(wiring, nodeId)
  if (!found) return null
  const [first, ...rest] = found.behind as [Branch, ...Branch[]]
  return { kind: 'chain', id: `${wiring.id}-outward`, children: [{ ...first, lead: null }, ...rest] }
}

/** What is foretold of these; null of any other kind. */
export function predictBeyond(
  output: Output, kind: ReadingKind, nodeId: string | null, frequencyHz: number, lessons: (frequencyHz: number) => Lessons,
): Predicted | null {
  switch (kind) {
    case 'head-volts-amps': return { ...predictLineImpedance(output, frequencyHz, lessons(frequencyHz)), kind }
    case 'outward-impedance': {
      const wiring = nodeId === null ? null : outwardFrom(output.wiring, nodeId)
      if (!wiring) return null
      const label = speakersOf(output.wiring).find(s => s.id === nodeId)?.label ?? ''
      return { ...predictLineImpedance({ ...output, wiring }, frequencyHz, lessons(frequencyHz)), kind, nodeId, place: `${output.label} ${label}`, overloadOhm: null }
    }
    case 'tap-found': return predictTap(output, nodeId)
    case 'level': return predictLevel(output, nodeId)
    default: return null
  }
}

/** By itself nothing is foretold of a level: what it is held against hangs on what else was read (levels.ts). */
function predictLevel(output: Output, nodeId: string | null): Predicted | null {
  const speaker = speakersOf(output.wiring).find(s => s.id === nodeId)
  return speaker ? { kind: 'level', outputId: output.id, nodeId, place: `${output.label} ${speaker.label}`, low: null, expected: null, high: null, ...OF_COPPER, isOpen: false, source: 'none like it was read so on that day' } : null
}

function predictTap(output: Output, nodeId: string | null): Predicted | null {
  const speaker = speakersOf(output.wiring).find(s => s.id === nodeId)
  if (!speaker) return null
  const tap = speaker.load.kind === 'tap' ? { tapW: speaker.load.tapW, ratedV: speaker.load.ratedV } : null
  return {
    kind: 'tap-found', outputId: output.id, nodeId, place: `${output.label} ${speaker.label}`, low: null, expected: null, high: null, ...OF_COPPER,
    isOpen: false, tap, source: tap ? 'the tap that is drawn' : 'it is drawn without a transformer',
  }
}
