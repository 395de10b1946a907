import { z } from 'zod'
import Papa from 'papaparse'
import { BEFORE_WIRING, cableSchedule, cutList, scheduleRows } from '#core/advice/cableSchedule'
import { USUAL_SLACK } from '#core/advice/cableList'
import { tidy } from '#core/line/report'
import { writeCable } from '#core/quantity/cable'
import { defineVerb } from '../verb'

const number = z.number().nullable()
const scheduleSchema = z.strictObject({
  before: z.array(z.string()).describe('what is done first'),
  runs: z.array(z.strictObject({
    tag: z.string(), from: z.string(), to: z.string(), size: z.string(), conductors: z.string().nullable(), lengthM: number, withSlackM: number,
    listing: z.string().nullable().describe('null: nobody has written it; the local code decides'), connect: z.array(z.string()),
  })),
  drums: z.array(z.strictObject({
    size: z.string(), drumM: z.number(), leftM: z.number(), cuts: z.array(z.strictObject({ tag: z.string(), lengthM: z.number() })),
  })),
})

export const schedule = defineVerb({
  does: 'every length of cable of a saved job with its ends, conductors and what goes on which terminal, and what is cut from which drum; --csv writes it as a table, too',
  words: ['FILE.plainmatch.json'],
  flags: { 'slack': '[0.1]', 'drum-m': '[100]', 'csv': '[FILE.csv]' },
  example: 'schedule boat.plainmatch.json --csv boat-cables.csv',
  answer: scheduleSchema,
  run: ({ words: [path], flag, number: numberOf }, { readJob, writeText }) => {
    const runs = cableSchedule(readJob(path!), numberOf('slack', { least: 0, most: 2, otherwise: USUAL_SLACK }))
    const csv = flag('csv')
    // What begins with a sign that a spreadsheet computes is text.
    if (csv !== undefined) writeText(csv, `${Papa.unparse(scheduleRows(runs), { escapeFormulae: true })}\n`)
    return tidy({
      before: [...BEFORE_WIRING],
      runs: runs.map(({ outputId: _, nodeId: __, cable, ...run }) => ({ ...run, size: writeCable(cable) })),
      drums: cutList(runs, numberOf('drum-m', { least: 1, most: 5000, otherwise: 100 })).map(({ cable, drumM, leftM, cuts }) => ({ size: writeCable(cable), drumM, leftM, cuts })),
    })
  },
})
