import type { FaultKind } from '#core/job/schema'
import type { Fault } from './fault'

/** What is put right at one go, at one place: a joint, the unit, its transformer, its dial. Another of these is another go. */
const GO: Partial<Record<FaultKind, string>> = {
  'open-at-drop': 'joint', 'high-resistance': 'joint', 'dirty-contact': 'joint', 'short-at-drop': 'joint', 'turned-round': 'joint', 'speaker-missing': 'joint',
  'coil-open': 'unit', 'coil-high': 'unit', 'shorted-turns': 'unit', 'rubbing': 'unit', 'comes-and-goes': 'unit', 'high-unit-gone': 'unit', 'one-driver-gone': 'unit', 'coil-opposed': 'unit', 'short-at-tabs': 'unit',
  'winding-open': 'transformer', 'winding-shorted': 'transformer', 'winding-exchanged': 'dial', 'low-impedance-position': 'dial', 'wrong-tap': 'dial', 'wrong-scale': 'dial', 'drops-exchanged': 'dial',
}
export const goOf = ({ kind, nodeId }: Pick<Fault, 'kind' | 'nodeId'>): string => `${GO[kind] ?? kind} ${nodeId ?? ''}`
