import { setResponseStatus } from 'h3'
import { z } from 'zod'
import { BENCH_ID } from '#core/job/bench'
import { emptyJob } from '#core/job/document'
import { Records } from '#core/job/records'
import { nameText } from '#core/quantity/fields'
import { detailFields } from '#core/job/sections/details/schema'
import { readJob } from '#core/job/readJob'
import type { Job } from '#core/job/schema'
import { readJobFile, type ReadFile } from '#core/format/plainMatch'
import { parseQuick } from '#core/quick/parse'
import { jobOfLine } from '#core/quick/answer'
import { isHelper, withHelper } from '../../helper/helper'
import { isHeavyJob } from '../../helper/heavy'
import { askHelper } from '../../helper/passOn'
import { newId } from '../../jobs/newId'
import { LONGEST_FILE_BODY } from '../../http/body'
import { jobIdSchema, noSuchJob, readJson, route } from '../../http/route'
import { isBenchOnly, takeBenchIn } from '../../jobs/benchIn'
import { createJob, readWhole } from '../../jobs/service'

/** A new job: empty, from a typed line, from a file, or a copy. The id is the caller's, so that a request sent twice makes one job. */
const body = z.discriminatedUnion('from', [
  z.strictObject({ id: jobIdSchema, from: z.literal('nothing'), name: nameText, units: detailFields.units.default(null) }),
  z.strictObject({ id: jobIdSchema, from: z.literal('line'), line: z.string().max(2000) }),
  z.strictObject({ id: jobIdSchema, from: z.literal('file'), text: z.string() }),
  z.strictObject({ id: jobIdSchema, from: z.literal('copy'), of: jobIdSchema }),
])

export default route(async (event, db) => {
  const wanted = await readJson(event, body, LONGEST_FILE_BODY)
  if (wanted.from === 'copy' && !isHelper && await isHeavyJob(db, wanted.of)) {
    const answer = await withHelper(async socketPath => socketPath === null ? null : await askHelper(socketPath, 'POST', '/api/jobs', wanted))
    if (answer) {
      setResponseStatus(event, answer.status)
      return JSON.parse(answer.text) as { id: string, remarks: string[] }
    }
  }
  const { job, remarks } = await (async (): Promise<ReadFile> => {
    switch (wanted.from) {
      case 'nothing': return plain({ ...emptyJob(wanted.name), units: wanted.units })
      case 'line': return plain(jobOfLine(parseQuick(wanted.line), newId))
      case 'file': return readJobFile(wanted.text)
      case 'copy': {
        const source = await readWhole(db, wanted.of)
        if (!source) throw noSuchJob()
        return plain(readJob({ ...source, name: `${source.name.slice(0, 110)} (copy)` }))
      }
    }
  })()
  if (wanted.from === 'file' && (job.tickets.size > 0 || job.drawer.length > 0)) remarks.push(...await takeBenchIn(db, job))
  if (wanted.from === 'file' && isBenchOnly(job)) return { id: BENCH_ID, remarks }
  await createJob(db, wanted.id, { ...job, tickets: Records.of(), drawer: [] })
  return { id: wanted.id, remarks }
})

const plain = (job: Job): ReadFile => ({ job, remarks: [] })
