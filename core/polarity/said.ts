import { z } from 'zod'
import type { Job } from '#core/job/schema'
import type { Corrections, PolarityReport } from './report'
import { swapWords } from './words'

/** The polarity of a job as a document: for a terminal, and for whoever reads it by program. */

const corrections = z.strictObject({
  swaps: z.array(z.string()).describe('what to swap, one sentence a place'),
  proven: z.boolean().describe('there are no fewer, and every speaker that it is of is known, drawn or read'),
})
export const polarityReportSchema = z.strictObject({
  speakers: z.array(z.strictObject({
    nodeId: z.string(), label: z.string().describe('line and speaker; of a unit with stated coils one entry a coil'),
    space: z.string().nullable().describe('the space or zone that it hangs in; null: nobody has said'),
    drawn: z.enum(['as marked', 'reversed', 'not known']), read: z.enum(['right', 'reversed', 'not read']),
  })),
  agree: corrections.describe('so that all that are heard together agree'),
  absolute: corrections.describe('so that all are as marked'),
})
export type PolaritySaid = z.infer<typeof polarityReportSchema>

const DRAWN = { 0: 'as marked', 1: 'reversed' } as const
const READ = { 0: 'right', 1: 'reversed' } as const

export function polarityReport(job: Job, { leaves, groups, agree, absolute }: PolarityReport): PolaritySaid {
  const spaceOf = new Map(groups.flatMap(group => group.leaves.map(leaf => [leaf, group.by === 'space' || group.by === 'zone' ? group.name : null] as const)))
  const said = ({ swaps, isProven }: Corrections) => ({ swaps: swaps.map(swap => swapWords(job, swap)), proven: isProven })
  return {
    speakers: leaves.map((leaf) => {
      const { speaker, coil, line: { output }, drawn, read } = leaf
      return {
        nodeId: speaker.id, label: `${output.label} ${speaker.label}${coil === null ? '' : ` coil ${coil + 1}`}`, space: spaceOf.get(leaf) ?? null,
        drawn: drawn === null ? 'not known' : DRAWN[drawn], read: read === null ? 'not read' : READ[read],
      }
    }),
    agree: said(agree), absolute: said(absolute),
  }
}
