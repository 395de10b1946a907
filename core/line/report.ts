import { z } from 'zod'
import type { Job } from '#core/job/schema'
import { MEASURED_KINDS, type MeasuredKind } from '#core/job/sections/readings/kinds'
import type { Predicted } from '#core/check/predict'
import { evaluateJob, type LineEvaluation } from './evaluate'
import { valveSaid } from './valveSaid'
import { findingText } from './words'

/** The evaluation of a saved job as the command line prints it. Nulls are not known. */

const number = z.number().nullable()
const grade = z.enum(['good', 'tight', 'stop', 'unknown'])

export const findingSchema = z.strictObject({
  code: z.string(), grade, text: z.string(), nodeId: z.string().nullable().describe('the speaker it is about; null for the whole line'),
})
export const requiredSchema = z.strictObject({
  practice: z.string(), powerW: number.describe('the least that satisfies the school, W; null while ratings are not known'),
  toW: number.describe('the most it allows, W; null where it sets none'), chosen: z.boolean(),
})

export const tapSchema = z.strictObject({
  tapOhm: number.describe('the tap that the line is on, Ω'), bestOhm: number.describe('the one for this load; null: below all of them'),
  lossDb: number.describe('what a mismatch costs'),
}).nullable().describe('of a valve output; null for any other')
export const bridgedSchema = z.enum(['single', 'bridged', 'parallel']).describe('how many channels the output is, and how they are joined')
export const schoolsSchema = z.array(z.strictObject({ school: z.string(), grade, chosen: z.boolean() }))
  .describe('what each school of valve outputs says of this load on this tap; empty for any other output')

export const reportSchema = z.strictObject({
  name: z.string(),
  lines: z.array(z.strictObject({
    label: z.string(), name: z.string(), kind: z.enum(['low-impedance', 'constant-voltage']), grade,
    loadOhm: number.describe('nominal, at the head, cable included, Ω'),
    minimumOhm: number.describe('lowest |Z| from 20 Hz to 20 kHz, Ω'),
    minimumFrom: z.enum(['curve', 'mixed', 'label']).nullable().describe('from known curves, what the labels permit (IEC 60268-5), or both'),
    tapsW: number.describe('sum of the taps as they are set, on this line voltage, W'),
    drawW: number.describe('what they draw as they are wired, cable apart, W'), lineV: number,
    amplifierW: number.describe('what the amplifier gives into this load at full output, at the least, W; null while not known or not allowed'),
    mostW: number.describe('the most it may give: more only where it is not rated at this load, W'),
    lostW: number.describe('of it, lost in the cable, W'),
    drawnW: number.describe('what all speakers draw from the line, W'),
    deliveredW: number.describe('what their drivers get of that, W; null while the loss of a transformer that plays is not stated'),
    transformerLossW: number.describe('heat in the transformers of speakers and groups, W; null as deliveredW'),
    controls: z.array(z.strictObject({
      label: z.string(), ratingW: number, behindW: number.describe('what hangs behind it, fully up, W'), grade: grade.describe('of its rating; unknown while that is not stated'),
    })),
    drops: z.array(z.strictObject({
      label: z.string(), volts: number, drawnW: number.describe('from the line, W'),
      powerW: number.describe('what the driver gets, W: less than drawnW where its transformer has a stated loss'),
    })),
    tap: tapSchema, bridged: bridgedSchema, schools: schoolsSchema,
    required: z.array(requiredSchema),
    findings: z.array(findingSchema),
    predicted: z.array(z.strictObject({
      place: z.string(), kind: z.enum(MEASURED_KINDS),
      low: number, expected: number, high: number, unit: z.literal('Ω'), source: z.string(),
    })),
  })),
})
export type Report = z.infer<typeof reportSchema>

const isMeasured = (predicted: Predicted): predicted is Predicted & { kind: MeasuredKind } => (MEASURED_KINDS as readonly string[]).includes(predicted.kind)

/** Twelve figures: what is computed is exact to more than that, what is printed need not show the last bits of arithmetic. */
export function tidy<T>(value: T): T {
  if (typeof value === 'number') return Number(value.toPrecision(12)) as T
  if (Array.isArray(value)) return value.map(tidy) as T
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, tidy(v)])) as T
}

export function findingsOf(line: LineEvaluation): z.infer<typeof findingSchema>[] {
  return line.findings.map(f => ({ code: f.code, grade: f.grade, text: findingText(f), nodeId: f.nodeId }))
}

export function requiredOf(line: LineEvaluation): z.infer<typeof requiredSchema>[] {
  return line.required.map(({ practice, powerW, toW, chosen }) => ({ practice, powerW, toW, chosen }))
}

function controlsOf(line: LineEvaluation): Report['lines'][number]['controls'] {
  return line.throughs.flatMap(({ through, nodeId, behindW }) => through.kind === 'control'
    ? [{ label: through.label, ratingW: through.ratingW, behindW, grade: line.findings.find(f => f.nodeId === nodeId && CONTROL_GRADES.has(f.code))?.grade ?? 'unknown' }]
    : [])
}
const CONTROL_GRADES = new Set(['control-fits', 'control-tight', 'control-over'])

export function reportOf(job: Job): Report {
  return tidy({
    name: job.name,
    lines: evaluateJob(job).map(line => ({
      label: line.output.label, name: line.output.name, kind: line.kind, grade: line.grade,
      loadOhm: line.loadOhm, minimumOhm: line.lowest?.ohm ?? null, minimumFrom: line.lowest?.from ?? null,
      tapsW: line.tapsW, drawW: line.drawW, lineV: line.lineV, amplifierW: line.amplifierW, mostW: line.mostW, lostW: line.lostW,
      drawnW: line.drawnW, deliveredW: line.deliveredW, transformerLossW: line.transformerLossW, controls: controlsOf(line),
      drops: line.drops.map(({ label, volts, drawnW, powerW }) => ({ label, volts, drawnW, powerW })),
      ...valveSaid(line, job),
      required: requiredOf(line), findings: findingsOf(line),
      predicted: line.predicted.filter(isMeasured)
        .map(({ place, kind, low, expected, high, unit, source }) => ({ place, kind, low, expected, high, unit, source })),
    })),
  })
}
