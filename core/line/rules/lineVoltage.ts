import { isSameVoltage } from '#core/quantity/tolerance'
import { drawsAsSet } from '../draw'
import type { Finding } from '../finding'
import { isBehindTransformer, tapDrawW, type LineFacts } from '../facts'
import { isPastItsTransformer } from './kinds'
import { found, type Rule } from './rule'
import { nominalOhmOf } from '#core/network/tree'

/** Does every speaker belong on this kind of line and this voltage. */
export const lineVoltage: Rule = (line, { kinds }) => {
  if (line.kind === 'low-impedance') return onPlainOutput(line)
  const { lineV } = line
  if (lineV === null) {
    const printedV = [...new Set(line.speakers.flatMap(s => s.load.kind === 'tap' ? [s.load.ratedV] : []))].sort((a, b) => a - b)
    return printedV.length > 1 ? [found(line, { code: 'line-voltage-not-known', grade: 'unknown', facts: { printedV } })] : []
  }
  const mismatched = line.drops.flatMap(({ speaker: { id, label, load, kindId }, behind }): Finding[] => {
    if (load.kind !== 'tap') {
      // Behind a transformer of its own group it is where it belongs; one wired past its own is said by what it is.
      if (isBehindTransformer(behind) || isPastItsTransformer(kinds.find(k => k.id === kindId), load)) return []
      const nominalOhm = nominalOhmOf(load)
      return [found(line, { code: 'plain-speaker-on-line', grade: 'stop', facts: { label, nominalOhm, lineV, wouldTakeW: lineV ** 2 / nominalOhm } }, id)]
    }
    if (load.tapW === 0 || isSameVoltage(load.ratedV, lineV)) return []
    const takesW = tapDrawW(load, lineV)
    const grade = takesW > load.tapW ? 'stop' : 'tight'
    return [found(line, { code: 'scale-mismatch', grade, facts: { label, tapW: load.tapW, ratedV: load.ratedV, lineV, takesW } }, id)]
  })
  const { tapsW, drawW } = line
  // What nothing flows through is said by itself.
  return tapsW === null || drawW === null || line.head !== 'finite' || line.dead.length > 0 || drawsAsSet(line)
    ? mismatched
    : [...mismatched, found(line, { code: 'draw-is-not-taps', grade: 'tight', facts: { tapsW, drawW } })]
}

/** A low-impedance output gives what it gives: a transformer there is judged by the volts that reach it. */
function onPlainOutput(line: LineFacts): Finding[] {
  const volts = line.upDrive && line.upDrive.basis !== 'under-floor' ? line.upDrive.volts : null
  const taps = line.speakers.flatMap(({ id, label, load }) => load.kind === 'tap' && load.tapW > 0 ? [{ id, label, load }] : [])
  const isRight = (ratedV: number) => volts !== null && isSameVoltage(volts, ratedV)
  const right = taps.filter(t => isRight(t.load.ratedV))
  const drives = right.length > 0 ? [found(line, { code: 'plain-output-drives-line', grade: 'good', facts: { volts: volts!, ratedV: right[0]!.load.ratedV, count: right.length } })] : []
  return [...drives, ...taps.filter(t => !isRight(t.load.ratedV)).map(({ id, label, load }) => {
    const takesW = volts === null ? null : tapDrawW(load, volts)
    const grade = takesW !== null && takesW > load.tapW ? 'stop' : 'tight'
    return found(line, { code: 'transformer-on-plain-output', grade, facts: { label, tapW: load.tapW, takesW } }, id)
  })]
}
