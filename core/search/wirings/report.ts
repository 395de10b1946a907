import { z } from 'zod'
import { tidy } from '#core/line/report'
import type { Wirings } from './finder'

/** What the command line says of ways to wire speakers; the JSON Schema is made of it. */
export const wiringsReportSchema = z.strictObject({
  wirings: z.array(z.strictObject({
    text: z.string().describe('as quick match reads it'),
    loadOhm: z.number(),
    amplifierW: z.number().nullable().describe('what the output gives into it, W'),
    powerW: z.array(z.number()).describe('what each speaker gets, in the order of the text, W; parts of one where the output is not known'),
    connections: z.int().describe('joints to be made, both at the output included'),
  })).describe('fewest joints first, two hundred at most'),
  refused: z.array(z.strictObject({ text: z.string(), loadOhm: z.number(), why: z.string(), isTooLow: z.boolean() })).describe('nearest to what is allowed first, sixty at most'),
  distinct: z.number().nullable().describe('different networks of these speakers; null where there are more than a number holds'),
  unfair: z.number().nullable().describe('of them those left out, since speakers would not get what they are to have'),
  isWhole: z.boolean().describe('all were gone through; of more than eight equal speakers only those of equal groups'),
})

export const wiringsReport = ({ wirings, ...rest }: Wirings): z.infer<typeof wiringsReportSchema> =>
  tidy({ wirings: wirings.map(({ text, loadOhm, amplifierW, powerW, connections }) => ({ text, loadOhm, amplifierW, powerW, connections })), ...rest })
