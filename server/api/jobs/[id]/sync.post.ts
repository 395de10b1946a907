import { z } from 'zod'
import { MOST_PARTS, partsOf, readStampedInSteps, type StampedEdit } from '#core/job/edits'
import { idText } from '#core/quantity/fields'
import { EDITS_A_REQUEST } from '#core/job/protocol'
import { problem } from '../../../http/problem'
import { jobIdOf, noSuchJob, readJson, refused, route } from '../../../http/route'
import { inSlices } from '../../../jobs/breath'
import { syncJob } from '../../../jobs/service'

const body = z.strictObject({ since: z.int().min(0).max(2 ** 31 - 1), by: idText.default(''), edits: z.array(z.unknown()).max(EDITS_A_REQUEST) })

/** Takes a window's edits and answers with all it has not seen. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const { since, by, edits: sent } = await readJson(event, body)
  const edits = await inSlices(readEdits(sent))
  const parts = edits.reduce((sum, e) => sum + partsOf(e.edit).length, 0)
  if (parts > MOST_PARTS) throw problem(413, 'too-many-parts', `${parts} parts of edits in one request; ${MOST_PARTS} is the most. Send the rest in further ones.`)
  const answer = await syncJob(db, id, { since, by, edits })
  if (!answer) throw noSuchJob()
  return answer
})

/** Each by itself: a thousand parts take their time, and others wait. */
function* readEdits(sent: readonly unknown[]): Generator<void, StampedEdit[]> {
  const edits: StampedEdit[] = []
  for (const [k, edit] of sent.entries()) {
    const read = yield* readStampedInSteps(edit)
    if ('issues' in read) throw refused(read.issues, [`edits[${k}]`, read.at].filter(Boolean).join('.'))
    edits.push(read)
    yield
  }
  return edits
}
