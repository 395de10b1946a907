import { z } from 'zod'
import { MOST_PARTS, partsOf, stampedEditSchema, type StampedEdit } from '#core/job/edits'
import { idText } from '#core/job/fields'
import { EDITS_A_REQUEST } from '#core/job/wire'
import { problem } from '../../../http/problem'
import { checked, jobIdOf, noSuchJob, readJson, route } from '../../../http/route'
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
    edits.push(checked(edit, stampedEditSchema, `edits[${k}]`))
    yield
  }
  return edits
}
