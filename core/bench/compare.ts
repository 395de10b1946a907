import { cornerOf } from '#core/advice/low/corner'
import type { SpeakerModel } from '#core/gear/speaker'
import { fieldsOf } from '#core/hands/kinds'
import { levelWord } from './levelWord'
import { writeNumber, writeQuantity } from '#core/quantity/write'

/** Two units side by side: how much louder from the same source, what each may be given, what a small source makes of them, what a capacitor in line takes. */

/** Sensitivity in dB at 1 m for 1 W; null: not known. */
export interface Side { name: string, nominalOhm: number | null, sensitivityDb: number | null, ratedW: number | null, model?: SpeakerModel }
/** A source that holds its volts: its watts at its ohms. */
export interface Source { watts: number, ohm: number }

export interface Compared {
  /** The new one against the old at the same volts, dB; null while not known. */
  sameVoltsDb: number | null
  /** Level of each at 1 m by the source at full output, dB. */
  bySourceDb: [number | null, number | null]
  /** Level of each at 1 m at its own rating, dB. */
  mostDb: [number | null, number | null]
  /** Corner of a capacitor on each, Hz: on its impedance where a curve of it is known, else on its label. */
  cornerHz: [number | null, number | null]
  says: string
}

/** A difference that is plain to the ear, and one that nobody hears, dB. Common practice, no source. */
const PLAIN_DB = 3
const NOT_HEARD_DB = 1

const powerDb = (watts: number) => 10 * Math.log10(watts)

export function compared(was: Side, now: Side, source: Source, capacitorF: number | null): Compared {
  const volts2 = source.watts * source.ohm
  const bySource = ({ nominalOhm, sensitivityDb }: Side) => nominalOhm === null || sensitivityDb === null ? null : sensitivityDb + powerDb(volts2 / nominalOhm)
  const most = ({ sensitivityDb, ratedW }: Side) => sensitivityDb === null || ratedW === null ? null : sensitivityDb + powerDb(ratedW)
  const [old, next] = [bySource(was), bySource(now)]
  const sameVoltsDb = old === null || next === null ? null : next - old
  const [ofOld, ofNew] = [cornerHz(was, capacitorF), cornerHz(now, capacitorF)]
  return { sameVoltsDb, bySourceDb: [old, next], mostDb: [most(was), most(now)], cornerHz: [ofOld, ofNew], says: worthWords(was, now, sameVoltsDb, source) }
}

/** Half power. Source: first order, f = 1/(2πRC); on a known impedance it is where half arrives (advice/low/corner.ts). */
function cornerHz({ nominalOhm, model }: Side, capacitanceF: number | null): number | null {
  if (nominalOhm === null || capacitanceF === null) return null
  const plain = { load: { kind: 'nominal' as const, nominalOhm }, driverOhm: null }
  const { load } = model ? fieldsOf(model, plain) : plain
  const speaker = { kind: 'speaker' as const, id: 'unit', label: '1', name: '', load, driverOhm: null, continuousW: null, kindId: null, zoneId: null }
  const corner = cornerOf({ kind: 'series', id: 'in-line', children: [{ lead: null, node: speaker }], through: { kind: 'capacitor', label: 'C1', name: '', from: null, capacitanceF } })
  return corner && (corner.realHz ?? corner.textbookHz)
}

function worthWords(was: Side, now: Side, sameVoltsDb: number | null, source: Source): string {
  const gives = now.nominalOhm === null ? null : source.watts * source.ohm / now.nominalOhm
  const stands = gives !== null && now.ratedW !== null && gives > 2 * now.ratedW ? ` The source gives ${writeQuantity(gives, 'W')} into it, and it stands ${writeQuantity(now.ratedW, 'W')}: mind the knob.` : ''
  if (sameVoltsDb === null) return `Whether it is worth changing is not known: ${[was, now].filter(s => s.sensitivityDb === null || s.nominalOhm === null).map(s => `“${s.name}”`).join(' and ')} ${was.sensitivityDb === null && now.sensitivityDb === null ? 'have' : 'has'} no stated sensitivity or ohms.${stands}`
  const size = Math.abs(sameVoltsDb)
  if (size < NOT_HEARD_DB) return `For loudness it is not worth changing: ${levelWord(sameVoltsDb)} from the same source.${stands}`
  const asMuch = `as ${writeNumber(10 ** (size / 10), 2)} times the watts would`
  if (sameVoltsDb < 0) return `It is not worth changing for loudness: ${levelWord(sameVoltsDb)} from the same source.${stands}`
  return `${size >= PLAIN_DB ? 'It is worth changing' : 'It is a small gain'}: ${levelWord(sameVoltsDb)} from the same source, ${asMuch}.${stands}`
}
