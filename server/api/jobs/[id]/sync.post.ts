import { z } from 'zod'
import { MOST_PARTS, partsOf, readStampedInSteps, type StampedEdit } from '#core/job/edits'
import { idText } from '#core/quantity/fields'
import { EDITS_A_REQUEST } from '#core/job/protocol'
import { upgradedStamped } from '#core/job/upgrade'
import { deviceIdOf } from '../../../door/asker'
import { problem } from '../../../http/problem'
import { jobIdOf, noSuchJob, readJson, refused, refuseNewerPage, route } from '../../../http/route'
import { inSlices } from '../../../jobs/slices'
import { syncJob } from '../../../jobs/service'

/** The last version whose pages did not say which they are of. */
const UNSAID_VERSION = 9
const body = z.strictObject({
  since: z.int().min(0).max(2 ** 31 - 1), by: idText.default(''), version: z.int().min(1).default(UNSAID_VERSION), edits: z.array(z.unknown()).max(EDITS_A_REQUEST),
})

/** Takes a window's edits and answers with all it has not seen. */
export default route(async (event, db) => {
  const id = jobIdOf(event)
  const { since, by, version, edits: sent } = await readJson(event, body)
  refuseNewerPage(version)
  // A page of an older version keeps working until it is read anew: what it sends is brought up.
  const edits = await inSlices(readEdits(sent, version))
  const parts = edits.reduce((sum, e) => sum + partsOf(e.edit).length, 0)
  if (parts > MOST_PARTS) throw problem(413, 'too-many-parts', `${parts} parts of edits in one request; ${MOST_PARTS} is the most. Send the rest in further ones.`)
  // A device answers for what it sends; at the machine itself what was read in from elsewhere keeps its own name.
  const device = deviceIdOf(event)
  const answer = await syncJob(db, id, { since, by, edits: device === null ? edits : edits.map(edit => ({ ...edit, who: device })) })
  if (!answer) throw noSuchJob()
  return answer
})

/** Each by itself: a thousand parts take their time, and others wait. */
function* readEdits(sent: readonly unknown[], version: number): Generator<void, StampedEdit[]> {
  const edits: StampedEdit[] = []
  for (const [k, edit] of sent.entries()) {
    const read = yield* readStampedInSteps(upgradedStamped(edit, version))
    if ('issues' in read) throw refused(read.issues, [`edits[${k}]`, read.at].filter(Boolean).join('.'))
    edits.push(read)
    yield
  }
  return edits
}
