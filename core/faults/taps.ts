import { together, type SimpleEdit } from '#core/job/edits'
import { setTap } from '#core/hands/intents'
import type { Speaker, SpeakerLoad } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { isGroup, type WiringNode } from '#core/network/tree'
import { faultAt, type Fault, type FaultDefinition } from './fault'
import { OTHER_SCALE } from './wrongTap'

/** Faults of all transformers of a line at once: the person who set one set all. */

type Tap = Extract<SpeakerLoad, { kind: 'tap' }>
/** The tap that a transformer really stands on; null where it cannot. */
type Move = (load: Tap, way: 'up' | 'down') => number | null

const tapsOf = (speakers: readonly Speaker[]) => speakers.flatMap(s => s.load.kind === 'tap' && s.load.tapW > 0 ? [s.load] : [])

function moved(node: WiringNode, move: (load: Tap) => number | null): WiringNode {
  if (isGroup(node)) return { ...node, children: node.children.map(c => ({ ...c, node: moved(c.node, move) })) }
  if (node.kind !== 'speaker' || node.load.kind !== 'tap' || node.load.tapW === 0) return node
  return { ...node, load: { ...node.load, tapW: move(node.load) ?? node.load.tapW } }
}

function ofAllTaps(kind: Fault['kind'], prior: number, why: string, move: Move, isPossible: (loads: Tap[], way: 'up' | 'down') => boolean): FaultDefinition {
  return {
    kind, prior, why,
    candidates: (_, speakers) => {
      const loads = tapsOf(speakers)
      return loads.length === 0 ? [] : (['up', 'down'] as const).filter(way => isPossible(loads, way)).map(way => faultAt(kind, null, { way }))
    },
    change: (wiring, { way }) => moved(wiring, load => move(load, way!)),
    coil: { right: 1 },
  }
}

const stepped: Move = ({ tapW, tapsW }, way) => {
  const taps = [...tapsW].sort((a, b) => a - b)
  return (way === 'up' ? taps.find(w => w > tapW) : taps.filter(w => w < tapW).at(-1)) ?? null
}

const scaled: Move = ({ tapW }, way) => way === 'up' ? tapW * OTHER_SCALE : tapW / OTHER_SCALE
/** The tap at the place of the dial where the other scale says what was planned; null where it has none there. */
const onScale: Move = (load, way) => load.tapsW.find(w => Math.abs(w / scaled(load, way)! - 1) < 0.02) ?? null
/** One off, and by the other scale: the same place of every dial. */
const isSamePlace = (load: Tap, way: 'up' | 'down') => stepped(load, way) === onScale(load, way)

const toEach = (move: Move): FaultDefinition['plan'] => ({ output, fault }) => together(speakersOf(output.wiring).flatMap((speaker): SimpleEdit[] => {
  const tapW = speaker.load.kind === 'tap' && speaker.load.tapW > 0 ? move(speaker.load, fault.way!) : null
  return tapW === null ? [] : [setTap(speaker, tapW) as SimpleEdit]
}))

/** Every transformer one tap up or down from the plan. Where that is what the other scale of each comes to, it is told as that. */
export const tapsOneOff: FaultDefinition = {
  ...ofAllTaps('taps-one-off', 1.5, 'who set one set all, by a sheet that was changed', stepped,
    (loads, way) => loads.every(load => stepped(load, way) !== null) && !loads.every(load => isSamePlace(load, way))),
  plan: toEach(stepped),
}

/** Every dial set by its other scale: each draws double, or half. Common practice, no source: a classic fault. */
export const tapsOnOtherScale: FaultDefinition = {
  ...ofAllTaps('taps-on-other-scale', 2, 'who reads one dial by the wrong scale reads all so', scaled, () => true),
  // Where one of them has no such tap the line cannot be meant so.
  plan: question => tapsOf(speakersOf(question.output.wiring)).every(load => onScale(load, question.fault.way!) !== null) ? toEach(onScale)!(question) : null,
}
