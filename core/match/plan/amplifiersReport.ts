import { z } from 'zod'
import type { FoundAmplifiers } from './amplifierFinder'

/** What the command line says of amplifiers for a job; the JSON Schema is made of it. */
export const amplifiersReportSchema = z.strictObject({
  sets: z.array(z.strictObject({
    models: z.array(z.strictObject({ name: z.string(), count: z.int().min(1) })),
    assignment: z.array(z.strictObject({ line: z.string(), model: z.string(), output: z.int().min(1).describe('counted through all units of that model') })),
    price: z.number(),
    spareW: z.number().describe('what the outputs used give beyond what their lines ask for, W'),
    proven: z.boolean().describe('no set is cheaper, or none has fewer units'),
  })).describe('the cheapest first; then the one of fewest units, where that is another'),
  refused: z.array(z.strictObject({ model: z.string(), why: z.string() })),
  left: z.array(z.strictObject({ line: z.string(), why: z.string() })).describe('lines that could not be asked for, or that nothing feeds'),
}) satisfies z.ZodType<FoundAmplifiers>
