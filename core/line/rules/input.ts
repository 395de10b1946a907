import { dividedDb, gainOf, LOW_INTO_HIGH, ratedV } from '#core/amplifier/index'
import { fallsShort } from '#core/quantity/tolerance'
import type { Finding } from '../finding'
import { found, type Rule } from './rule'

/** So much apart figures of a sheet are rounding, and level is not heard. Common practice, no source. */
const ROUND_DB = 1

/** What feeds the amplifier: enough level, and low into high. Said only of what is stated. */
export const input: Rule = (line, { amplifier, fed }) => {
  const { rating } = line.output
  const { gainDb, inputV, source } = amplifier
  const findings: Finding[] = []
  const fullV = ratedV(rating)
  const [statedDb, comesDb] = [gainOf(rating, { gainDb, inputV: null }), gainOf(rating, { gainDb: null, inputV })]
  if (statedDb !== null && comesDb !== null && Math.abs(comesDb - statedDb) > ROUND_DB) {
    findings.push(found(line, { code: 'gain-contradicts', grade: 'unknown', facts: { gainDb: statedDb, inputV: inputV!, fullV: fullV!, comesDb } }))
  }
  if (!source || line.speakers.length === 0) return findings
  const isKnown = source.ohm !== null && fed !== null && fed.inputOhm !== null
  const lossDb = isKnown ? dividedDb(source.ohm!, fed.inputOhm!) : 0
  if (isKnown && fallsShort(fed.inputOhm!, LOW_INTO_HIGH * source.ohm!)) {
    findings.push(found(line, { code: 'source-loaded', grade: 'tight', facts: { source: source.name, sourceOhm: source.ohm!, inputOhm: fed.inputOhm!, inputs: fed.inputs, lossDb } }))
  }
  const gain = gainOf(rating, amplifier)
  const volts = line.upDrive && line.upDrive.basis !== 'under-floor' ? line.upDrive.mostVolts : null
  if (source.volts === null || gain === null || volts === null) return findings
  const arrivesV = source.volts * 10 ** (lossDb / 20)
  const needsV = volts / 10 ** (gain / 20)
  const moreDb = 20 * Math.log10(arrivesV / needsV)
  findings.push(moreDb < -ROUND_DB
    ? found(line, { code: 'source-weak', grade: 'tight', facts: { source: source.name, volts: arrivesV, needsV, shortDb: -moreDb, ofFull: 10 ** (moreDb / 10) } })
    : found(line, { code: 'source-suits', grade: 'good', facts: { source: source.name, volts: arrivesV, needsV, moreDb: Math.max(0, moreDb) } }))
  return findings
}
