import { z } from 'zod'
import type { FoundAmplifiers } from './amplifierFinder'

/** What the command line says of amplifiers for a job; the JSON Schema is made of it. */
export const amplifiersReportSchema = z.strictObject({
  sets: z.array(z.strictObject({
    leads: z.array(z.enum(['price', 'units', 'spare'])).describe('what no other set does better'),
    models: z.array(z.strictObject({ name: z.string(), count: z.int().min(1) })),
    assignment: z.array(z.strictObject({ line: z.string(), model: z.string(), output: z.int().min(1).describe('counted through all units of that model'), isBridged: z.boolean().describe('this output and the next one are bridged') })),
    price: z.number(),
    spareW: z.number().describe('what the outputs used give beyond what their lines ask for, W'),
    proven: z.boolean().describe('no set is cheaper, or none has fewer units'),
  })).describe('the cheapest, the one of fewest units, and the one with most to spare for a quarter more than the least price; each once, by price'),
  refused: z.array(z.strictObject({ model: z.string(), why: z.string() })),
  left: z.array(z.strictObject({ line: z.string(), why: z.string() })).describe('lines that could not be asked for, or that nothing feeds'),
  lacks: z.string().nullable().describe('inputs and zones that were asked for and that no set which feeds every line has; null: none'),
})
export type AmplifiersReport = z.infer<typeof amplifiersReportSchema>

export const amplifiersReport = ({ sets, refused, left, lacks }: FoundAmplifiers): AmplifiersReport => ({
  sets: sets.map(set => ({
    ...set, models: set.models.map(({ name, count }) => ({ name, count })),
    assignment: set.assignment.map(({ line, model, output, isBridged }) => ({ line, model, output, isBridged })),
  })),
  refused, left: left.map(({ line, why }) => ({ line, why })), lacks,
})
