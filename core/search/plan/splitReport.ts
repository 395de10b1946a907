import { z } from 'zod'
import type { LineSplit } from './splitLine'

/** What the command line says of a split; the JSON Schema is made of it. */
export const splitReportSchema = z.strictObject({
  line: z.string(),
  feasible: z.boolean().describe('each part is within what such an output may carry by the chosen reserve'),
  proven: z.boolean().describe('no split divides fewer spaces, or as few with less cable'),
  cableM: z.number().describe('runs of all parts from the rack, m'),
  boundM: z.number().describe('the least that any such split takes, m'),
  areLengthsKnown: z.boolean().describe('false: lengths that are not stated count as nothing'),
  cutSpaces: z.array(z.string()).describe('spaces that are played by more than one part'),
  parts: z.array(z.strictObject({ nodeIds: z.array(z.string()), labels: z.array(z.string()), tapsW: z.number(), allowedW: z.number(), cableM: z.number() })),
})

export function splitReport(line: string, { lp: _, ...split }: LineSplit): z.infer<typeof splitReportSchema> {
  return { line, ...split }
}
