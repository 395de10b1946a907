import { USUAL_SLACK } from '#core/advice/cableList'
import { BEFORE_WIRING, cableSchedule, cutList, scheduleRows } from '#core/advice/cableSchedule'
import { writeCable } from '#core/quantity/cable'
import { writeLength } from '#core/quantity/units'
import { NOTHING, type SheetMaker } from '../sheet'

const DRUM_M = 100
/** Sentences; the others are a word or a figure each. */
const WIDE: ReadonlySet<string> = new Set(['from', 'to', 'listing', 'connect'])
const NO_CABLE = 'No cable is drawn yet.'

/** Every length of cable with both its ends. */
export const schedule: SheetMaker = {
  id: 'schedule', title: 'Cable schedule', says: 'every cable, both ends, what goes on which terminal',
  make: ({ job, units }) => {
    const [heads, ...rows] = scheduleRows(cableSchedule(job, USUAL_SLACK), units)
    return {
      ...NOTHING, before: BEFORE_WIRING, empty: NO_CABLE,
      tables: rows.length === 0
        ? []
        : [{
            caption: 'Runs', says: '', columns: [...heads!.map(says => ({ says, ...WIDE.has(says) ? { isWide: true as const } : {} })), { says: 'done', isWritten: true as const }],
            rows: rows.map(cells => ({ cells: [...cells, ''] })),
          }],
    }
  },
}

/** What is cut from which drum. */
export const cuts: SheetMaker = {
  id: 'cuts', title: 'Cut list', says: 'what is cut from which drum',
  make: ({ job, units }) => {
    const runs = cableSchedule(job, USUAL_SLACK)
    const missing = runs.filter(run => run.lengthM === null).length
    return {
      ...NOTHING, empty: 'No length of cable is stated yet.',
      before: [...missing > 0 ? [`${missing} of ${runs.length} runs have no length yet and are in no drum.`] : [], 'A tenth on top where no plan of a space has its own slack. Few drums, not proven to be the fewest.'],
      tables: cutList(runs, DRUM_M).map((drum, k) => ({
        caption: `Drum ${k + 1}: ${writeCable(drum.cable)}, ${writeLength(drum.drumM, units)}`, says: `${writeLength(drum.leftM, units)} left`,
        columns: [{ says: 'tag' }, { says: 'cut', isFigure: true as const }, { says: 'cut and tagged, both ends', isWritten: true as const }],
        rows: drum.cuts.map(cut => ({ cells: [cut.tag, writeLength(cut.lengthM, units), ''] })),
      })),
    }
  },
}

/** Two tags a cable, one for each end. */
export const tags: SheetMaker = {
  id: 'tags', title: 'Tags', says: 'two for each cable, to be cut out',
  make: ({ job }) => ({
    ...NOTHING, empty: NO_CABLE,
    tags: cableSchedule(job, USUAL_SLACK).flatMap(({ tag, from, to, conductors }) => [`here: ${from}`, `here: ${to}`].map((here, k) => ({
      code: tag, lines: [here, `${k === 0 ? 'to' : 'from'}: ${k === 0 ? to : from}`, conductors ?? 'conductors not named'],
    }))),
  }),
}
