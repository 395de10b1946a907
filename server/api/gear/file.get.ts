import { setResponseHeader } from 'h3'
import { z } from 'zod'
import { writeCsv } from '#core/gear/csv'
import { readQuery, route } from '../../http/route'
import { newestOf } from '../../gear/repository'
import { kindSchema } from '../../gear/request'

/** The models of a kind as a table of text. */
export default route(async (event, db) => {
  const { kind } = readQuery(event, z.strictObject({ kind: kindSchema }))
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="${kind}s.csv"`)
  return writeCsv(kind, (await newestOf(db, kind)).map(m => m.body) as never)
})
