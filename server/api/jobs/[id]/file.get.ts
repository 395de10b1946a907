import { setHeader } from 'h3'
import { fileNameOf, inSchemaOrder, writeDocument } from '#core/format/plainMatch'
import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { readWhole } from '../../../jobs/service'

export default route(async (event, db) => {
  const document = await readWhole(db, jobIdOf(event))
  if (!document) throw noSuchJob()
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${fileNameOf(document.name)}"`)
  return writeDocument(inSchemaOrder(document))
})
