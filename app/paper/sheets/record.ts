import { FAULT_WORDS } from '#core/check/faultWords'
import { KIND_NAMES } from '#core/check/gradeWords'
import { standingAt } from '#core/check/marks'
import { takenWords, valueWords, VERDICT_TAGS } from '#core/check/words'
import type { Reading } from '#core/job/schema'
import { numberedStops } from '../numbered'
import { NOTHING, type PaperData, type SheetMaker } from '../sheet'
import { rightText } from './walk'

const when = (at: string) => at.slice(0, 16).replace('T', ' ')

/** What was read, against what is right; what was repaired, and what was found and left. It says what is not read yet. */
export const record: SheetMaker = {
  id: 'record', title: 'Test record', says: 'what was read against what is right, repaired, left',
  make: (data) => {
    const { job, lines } = data
    const all = numberedStops(data)
    const read = all.filter(({ at }) => standingAt(at.proof.standing, at.stop.ask) !== null)
    const repairs = [...job.repairs].filter(r => !r.withdrawn)
    const left = [...job.leavings].filter(l => !l.withdrawn)
    const placeOf = (outputId: string, nodeId: string | null) => {
      const line = lines.find(l => l.outputId === outputId)
      return `${line?.output.label ?? 'a line that is gone'} ${line?.speakers.find(s => s.id === nodeId)?.label ?? ''}`.trim()
    }
    return {
      ...NOTHING, empty: 'Nothing has been read yet.',
      before: [`${read.length} of ${all.length} readings that are asked for were taken.`, 'A reading proves only what it could have refuted. Alarm and evacuation sound, mains wiring and rigging are judged by the local code and licensed persons.'],
      tables: [
        ...lines.flatMap(({ outputId, output }) => {
          const rows = read.filter(({ at }) => at.output.id === outputId).map(({ at: { stop, proof } }) => {
            const { reading, verdict, left } = standingAt(proof.standing, stop.ask)!
            return { cells: [stop.speaker?.label ?? 'rack', KIND_NAMES[reading.kind], rightText(reading.kind, proof.planFor(reading)), valueWords(reading.value),
              left ? `${VERDICT_TAGS[verdict.code]}; found and left` : VERDICT_TAGS[verdict.code], whoWhen(reading, data)] }
          })
          return rows.length === 0
            ? []
            : [{
                caption: `${output.label} ${output.name}`.trim(), says: '', rows,
                columns: [{ says: 'at' }, { says: 'what' }, { says: 'right is' }, { says: 'read' }, { says: 'verdict', isWide: true as const }, { says: 'by, when' }],
              }]
        }),
        ...repairs.length === 0
          ? []
          : [{
              caption: 'Repaired', says: '', columns: [{ says: 'what was found', isWide: true as const }, { says: 'note' }, { says: 'when' }],
              rows: repairs.map(r => ({ cells: [FAULT_WORDS[r.fault].at(placeOf(r.outputId, r.nodeId)), r.note, when(r.at)] })),
            }],
        ...left.length === 0
          ? []
          : [{
              caption: 'Found and left', says: '', columns: [{ says: 'where' }, { says: 'what' }, { says: 'why', isWide: true as const }, { says: 'when' }],
              rows: left.map(l => ({ cells: [placeOf(l.outputId, l.nodeId), KIND_NAMES[l.kind], l.reason, when(l.at)] })),
            }],
      ],
    }
  },
}

function whoWhen(reading: Reading, { nameOf, job }: PaperData): string {
  const isOfSeveral = [...job.readings].some(r => r.who !== reading.who)
  return [isOfSeveral ? nameOf(reading.who) : '', takenWords(reading.taken, reading.frequencyHz), when(reading.at)].filter(Boolean).join(', ')
}
