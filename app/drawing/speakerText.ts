import { writeCapacitance, writeInductance } from '#core/quantity/parts'
import { writeNumber } from '#core/quantity/write'
import type { Speaker } from '#core/job/schema'
import { nominalOhmOf, type Through } from '#core/network/tree'

/** How a speaker is wired, as short as fits a tag: "30 W", "8 Ω", "off". */
export function wiringText({ load }: Speaker): string {
  if (load.kind !== 'tap') return `${writeNumber(nominalOhmOf(load))} Ω`
  return load.tapW === 0 ? 'off' : `${writeNumber(load.tapW)} W`
}

/** How a control or a transformer stands, as short as fits its box: "−6 dB", "up", "off", "60 W"; "?" where it is not stated. */
export function throughText(through: Through): string {
  if (through.kind === 'transformer') return through.tapW === 0 ? 'off' : `${writeNumber(through.tapW)} W`
  if (through.kind === 'capacitor') return writeCapacitance(through.capacitanceF)
  if (through.kind === 'inductor') return writeInductance(through.inductanceH)
  const { setDb } = through
  return setDb === null ? '?' : setDb === 'off' ? 'off' : setDb === 0 ? 'up' : `−${writeNumber(setDb)} dB`
}

/** The same in words. */
export function throughWords(through: Through): string {
  if (through.kind === 'transformer') return through.tapW === 0 ? 'off' : `tap ${writeNumber(through.tapW)} W, for ${writeNumber(through.secondaryOhm)} Ω`
  if (through.kind === 'capacitor' || through.kind === 'inductor') return throughText(through)
  const { setDb } = through
  return setDb === null ? 'level not stated' : setDb === 'off' ? 'off' : setDb === 0 ? 'fully up' : `${writeNumber(setDb)} dB down`
}

/** Watts as they stand on a tag: one place under a hundred. */
export function wattText(powerW: number | null): string {
  if (powerW === null) return '—'
  // Equals look equal: of taps of 1.25 W some stood as 1.2 and some as 1.3, by the last figure of their arithmetic.
  const firm = powerW * (1 + 1e-9)
  return powerW >= 99.95 ? firm.toFixed(0) : firm.toFixed(1)
}

/** What stands before a group, as it is called. */
export const THROUGH_NAMES: Record<Through['kind'], string> = { control: 'volume control', transformer: 'transformer', capacitor: 'capacitor', inductor: 'coil' }

/** A label cut to what a tag holds; the whole of it stands beside the sheet and is read out. */
export function shortLabel(label: string): string {
  return [...label].length > 7 ? [...label].slice(0, 6).join('') + '…' : label
}

/** What a kind made of a speaker is called where nobody has named it yet: "70.7 V unit, to 30 W", "8 Ω speaker". */
export function kindName(speaker: Speaker): string {
  const { load } = speaker
  return load.kind === 'tap' ? `${writeNumber(load.ratedV, 3)} V unit, to ${writeNumber(Math.max(0, ...load.tapsW))} W` : `${wiringText(speaker)} speaker`
}
