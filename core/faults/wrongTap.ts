import { setTap } from '#core/hands/intents'
import { findSpeaker } from '#core/job/tree'
import { faultAt, type FaultDefinition } from './fault'
import { withNode } from './changeTree'

/** A transformer stands on another of its taps than drawn. */
export const wrongTap: FaultDefinition = {
  kind: 'wrong-tap',
  isOfUnit: true,
  prior: 8,
  why: 'every transformer is set by hand, on a ladder, mostly by a lead or a screw that looks like its neighbours',
  candidates: (_, speakers) => speakers.flatMap(({ id, load }) => load.kind !== 'tap'
    ? []
    : load.tapsW.filter(tapW => tapW !== load.tapW).map(tapW => faultAt('wrong-tap', id, { tapW }))),
  change: (wiring, { nodeId, tapW }) => withNode(wiring, nodeId!, node => node.kind === 'speaker' && node.load.kind === 'tap' && tapW !== null
    ? { ...node, load: { ...node.load, tapW } }
    : node),
  coil: { right: 1 },
  plan: ({ job, fault: { nodeId, tapW } }) => {
    const found = findSpeaker(job, nodeId!)
    return found && tapW !== null ? setTap(found.speaker, tapW) : null
  },
}

/** Scales that dials carry side by side, 70 and 100 V: the winding of one reads half or double on the other. */
export const OTHER_SCALE = (100 / 70.71) ** 2
/** Dials with two scales, and lines that they are for. */
const SCALES_V = [65, 105] as const

/** One dial set by its other scale: it draws double, or half. What is a tap of its own is a wrong tap. */
export const wrongScale: FaultDefinition = {
  kind: 'wrong-scale',
  isOfUnit: true,
  prior: 3,
  why: 'two scales on one dial, read upside down on a ladder',
  candidates: (_, speakers) => speakers.flatMap(({ id, load }) => load.kind !== 'tap' || load.tapW === 0 || load.ratedV < SCALES_V[0] || load.ratedV > SCALES_V[1]
    ? []
    : (['up', 'down'] as const).filter(way => !load.tapsW.some(tapW => Math.abs(tapW / (load.tapW * (way === 'up' ? OTHER_SCALE : 1 / OTHER_SCALE)) - 1) < 0.02)).map(way => faultAt('wrong-scale', id, { way }))),
  change: (wiring, { nodeId, way }) => withNode(wiring, nodeId!, node => node.kind === 'speaker' && node.load.kind === 'tap'
    ? { ...node, load: { ...node.load, tapW: node.load.tapW * (way === 'up' ? OTHER_SCALE : 1 / OTHER_SCALE) } }
    : node),
  coil: { right: 1 },
}
