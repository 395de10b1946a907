import { dividedDb, gainOf, LOW_INTO_HIGH, ratedV } from '#core/amplifier/index'
import type { SourceKind } from '#core/gear/inputs'
import { fallsShort } from '#core/quantity/tolerance'
import type { LineFacts } from '../facts'
import type { Finding } from '../finding'
import { twiceIn, type Arrival } from '../sources'
import type { Around } from '../surroundings'
import { found, type Rule } from './rule'

/** So much apart figures of a sheet are rounding, and level is not heard. Common practice, no source. */
const ROUND_DB = 1

/** What feeds the amplifier: enough level, low into high, the right kind of input, both sides of it, paging over music. Said only of what is stated. */
export const input: Rule = (line, around) => {
  const { rating } = line.output
  const { amplifier: { gainDb, inputV }, arrivals } = around
  const findings: Finding[] = []
  const fullV = ratedV(rating)
  const [statedDb, comesDb] = [gainOf(rating, { gainDb, inputV: null }), gainOf(rating, { gainDb: null, inputV })]
  if (statedDb !== null && comesDb !== null && Math.abs(comesDb - statedDb) > ROUND_DB) {
    findings.push(found(line, { code: 'gain-contradicts', grade: 'unknown', facts: { gainDb: statedDb, inputV: inputV!, fullV: fullV!, comesDb } }))
  }
  if (line.speakers.length === 0) return findings
  return [
    ...findings, ...arrivals.flatMap(arrival => [...arrival.isOwn ? levels(line, arrival, around) : [], ...kinds(line, arrival)]), ...paging(line, arrivals),
    ...twiceIn(arrivals).map(facts => found(line, { code: 'source-twice', grade: 'tight', facts })),
  ]
}

/**
 * What it brings against what drives the output full, and what it sees. A microphone's own amplifier stands before the gain that is stated: nothing is said
 * of it.
 */
function levels(line: LineFacts, { at: { takes }, source }: Arrival, { amplifier, fed }: Around): Finding[] {
  if (source.kind === 'microphone' || (takes.length > 0 && !takes.includes('line') && !takes.includes('media'))) return []
  const findings: Finding[] = []
  const sees = fed.find(f => f.source === source.name)
  const isKnown = source.ohm !== null && sees !== undefined && sees.inputOhm !== null
  const lossDb = isKnown ? dividedDb(source.ohm!, sees.inputOhm!) : 0
  if (isKnown && fallsShort(sees.inputOhm!, LOW_INTO_HIGH * source.ohm!)) {
    findings.push(found(line, { code: 'source-loaded', grade: 'tight', facts: { source: source.name, sourceOhm: source.ohm!, inputOhm: sees.inputOhm!, inputs: sees.inputs, lossDb } }))
  }
  const gain = gainOf(line.output.rating, amplifier)
  const volts = line.upDrive && line.upDrive.basis !== 'under-floor' ? line.upDrive.mostVolts : null
  if (source.volts === null || gain === null || volts === null) return findings
  const arrivesV = source.volts * 10 ** (lossDb / 20)
  const needsV = volts / 10 ** (gain / 20)
  const moreDb = 20 * Math.log10(arrivesV / needsV)
  return [...findings, moreDb < -ROUND_DB
    ? found(line, { code: 'source-weak', grade: 'tight', facts: { source: source.name, volts: arrivesV, needsV, shortDb: -moreDb, ofFull: 10 ** (moreDb / 10) } })
    : found(line, { code: 'source-suits', grade: 'good', facts: { source: source.name, volts: arrivesV, needsV, moreDb: Math.max(0, moreDb) } })]
}

/** The kind of input, and both sides of it where one line carries all: a line of constant volts is always mono. Common practice, no source. */
function kinds(line: LineFacts, { at: { takes, sum }, name, source }: Arrival): Finding[] {
  const findings: Finding[] = []
  if (source.kind !== null && takes.length > 0 && !takes.includes(source.kind)) {
    findings.push(found(line, { code: 'input-other', grade: 'tight', facts: { source: source.name, input: name, brings: source.kind, takes } }))
  }
  if (line.kind === 'constant-voltage' && source.isStereo === true && sum !== 'summed') {
    findings.push(found(line, { code: 'not-summed', grade: sum === null ? 'unknown' : 'tight', facts: { source: source.name, sum } }))
  }
  return findings
}

/** A call has to get through: a microphone beside music wants to be over it. Common practice, no source. */
function paging(line: LineFacts, arrivals: readonly Arrival[]): Finding[] {
  const of = (kind: SourceKind) => arrivals.filter(a => !a.isDevice && a.source.kind === kind)
  const [music, calls] = [of('media'), of('microphone')]
  if (music.length === 0) return []
  return calls.filter(call => call.at.isOver !== true).map(({ at: { isOver }, source }) =>
    found(line, { code: 'paging-under', grade: isOver === null ? 'unknown' : 'tight', facts: { source: source.name, music: [...new Set(music.map(m => m.source.name))] } }))
}
