import { z } from 'zod'
import { parseQuick } from '#core/quick/parse'
import { toJob } from '#core/quick/toJob'
import { readJobFile } from '#core/format/plainMatch'
import { emptyJob, nameText } from '#core/job/schema'
import { newId } from '../../jobs/newId'
import { noSuchJob, readJson, route } from '../../http/route'
import { createJob, openJob } from '../../jobs/service'

/** A new job: empty, from a typed line, from a file, or a copy. The id is the caller's, so that a request sent twice makes one job. */
const body = z.discriminatedUnion('from', [
  z.strictObject({ id: z.uuid(), from: z.literal('nothing'), name: nameText }),
  z.strictObject({ id: z.uuid(), from: z.literal('line'), line: z.string().max(2000) }),
  z.strictObject({ id: z.uuid(), from: z.literal('file'), text: z.string() }),
  z.strictObject({ id: z.uuid(), from: z.literal('copy'), of: z.uuid() }),
])

export default route(async (event, db) => {
  const wanted = await readJson(event, body)
  const job = await (async () => {
    switch (wanted.from) {
      case 'nothing': return emptyJob(wanted.name)
      case 'line': return toJob(parseQuick(wanted.line), newId)
      case 'file': return readJobFile(wanted.text)
      case 'copy': {
        const source = await openJob(db, wanted.of)
        if (!source) throw noSuchJob()
        return { ...source.job, name: `${source.job.name.slice(0, 110)} (copy)` }
      }
    }
  })()
  await createJob(db, wanted.id, job)
  return { id: wanted.id }
})
