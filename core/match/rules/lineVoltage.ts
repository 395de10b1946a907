import { tapDrawW } from '../facts'
import { found, type Rule } from './rule'

/** Printed and real line voltage may differ this much without a word: 70 and 70.71 are one. */
const SAME_VOLTAGE = 0.03

/** Does every speaker belong on this kind of line and this voltage. */
export const lineVoltage: Rule = (line) => {
  const { lineV } = line
  return line.speakers.flatMap(({ id, label, load }) => {
    if (line.kind === 'low-impedance') {
      return load.kind === 'tap' ? [found(line, { code: 'transformer-on-plain-output', grade: 'tight', facts: { label } }, id)] : []
    }
    if (lineV === null) return []
    if (load.kind !== 'tap') {
      const { nominalOhm } = load
      return [found(line, { code: 'plain-speaker-on-line', grade: 'stop', facts: { label, nominalOhm, lineV, wouldTakeW: lineV ** 2 / nominalOhm } }, id)]
    }
    if (load.tapW === 0 || Math.abs(load.ratedV / lineV - 1) <= SAME_VOLTAGE) return []
    const takesW = tapDrawW(load, lineV)
    const grade = takesW > load.tapW ? 'stop' : 'tight'
    return [found(line, { code: 'scale-mismatch', grade, facts: { label, tapW: load.tapW, ratedV: load.ratedV, lineV, takesW } }, id)]
  })
}
