import { isConstantVoltage, valveOf } from '#core/amplifier/index'
import type { FaultKind, Sound } from '#core/job/schema'
import { faultAt, type FaultDefinition } from './fault'

/** What the amplifier, its source and the plugs at the rack can have: the line reads as drawn, and is heard otherwise. Before any cable. */

const atRack = (kind: FaultKind, prior: number, why: string, looks: number, heard: Partial<Record<Sound, number>>): FaultDefinition => ({
  kind, prior, why, looks, heard, acts: 'line',
  candidates: output => output.wiring.children.length === 0 ? [] : [faultAt(kind, null)],
  change: wiring => wiring,
  coil: { right: 1 },
})

export const amplifierDead = atRack('amplifier-dead', 3, 'off, muted, its fuse, its protection: all silent at once', 0.9, { silent: 1 })
export const sourceOneSide = atRack('source-one-side', 1, 'a lead of two sides with one of them off', 0.4, { silent: 0.8, quiet: 0.2 })
export const amplifierClipping = atRack('amplifier-clipping', 1, 'turned up past what it gives: harsh when loud, everywhere', 0.3, { scratchy: 0.6, plays: 0.4 })
export const amplifierLow = atRack('amplifier-low', 1, 'its knob, a pad, a source of another level', 0.7, { quiet: 0.7, plays: 0.3 })
export const amplifierWrongTap: FaultDefinition = {
  ...atRack('amplifier-wrong-tap', 1, 'several terminals side by side on one output', 0.9, { quiet: 0.5, plays: 0.4, scratchy: 0.1 }),
  candidates: output => output.wiring.children.length > 0 && (isConstantVoltage(output.rating) || (valveOf(output.rating)?.tapsOhm.length ?? 0) > 1) ? [faultAt('amplifier-wrong-tap', null)] : [],
}

/** Two lines on each other's output: what is read here is the other line. */
export const linesExchanged: FaultDefinition = {
  kind: 'lines-exchanged',
  looks: 0.6,
  prior: 1.5,
  why: 'plugs alike, side by side, without a tag',
  candidates: (output, _, others = []) => others.filter(o => o.id !== output.id && o.wiring.children.length > 0).map(o => faultAt('lines-exchanged', null, { withId: o.id })),
  change: (wiring, { withId }, others = []) => others.find(o => o.id === withId)?.wiring ?? wiring,
  coil: { right: 1 },
  heard: { plays: 0.9, quiet: 0.1 },
  acts: 'line',
}
