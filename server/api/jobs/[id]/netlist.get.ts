import { setHeader } from 'h3'
import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { findOutput } from '#core/job/tree'
import { writeSpice } from '#core/format/spice'
import { problem } from '../../../http/problem'
import { jobIdOf, noSuchJob, readQuery, route } from '../../../http/route'
import { readDrawing } from '../../../jobs/service'

/** One line as a netlist for a circuit simulator: one volt at the head, 20 Hz to 20 kHz. */
export default route(async (event, db) => {
  const { output: outputId } = readQuery(event, z.strictObject({ output: idText }))
  const job = await readDrawing(db, jobIdOf(event))
  if (!job) throw noSuchJob()
  const output = findOutput(job, outputId)?.output
  if (!output) throw problem(404, 'no-such-output', 'There is no such output in this job.')
  setHeader(event, 'content-type', 'text/plain; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${output.label.replace(/[^A-Za-z0-9]+/g, '-') || 'line'}.cir"`)
  return writeSpice({ lead: null, node: output.wiring }, `${job.name}, ${output.label} ${output.name}`, { headV: 1, fromHz: 20, toHz: 20_000, perDecade: 20 }).text
})
