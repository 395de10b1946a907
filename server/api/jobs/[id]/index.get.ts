import { Readable } from 'node:stream'
import { sendStream, setHeader } from 'h3'
import { z } from 'zod'
import { idText } from '#core/quantity/fields'
import { jobIdOf, noSuchJob, readQuery, route } from '../../../http/route'
import { openJobText } from '../../../jobs/service'

export default route(async (event, db) => {
  const { by } = readQuery(event, z.strictObject({ by: idText.default('') }))
  const opened = await openJobText(db, jobIdOf(event), by)
  if (!opened) throw noSuchJob()
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  return sendStream(event, Readable.from(opened))
})
