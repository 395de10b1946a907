import { setHeader } from 'h3'
import { strToU8, zipSync, type Zippable } from 'fflate'
import { fileNameOf, inSchemaOrder, writeDocument } from '#core/format/plainMatch'
import { archiveNameOf, JOB_ENTRY, photoEntry } from '#core/format/archive'
import { jobIdOf, noSuchJob, route } from '../../../http/route'
import { readWhole } from '../../../jobs/service'
import { photoBytes } from '../../../photos/bytes'

/** A job with its photos as one file: the document, and each picture under its hash. One that is not kept here is left out; the document names it still. */
export default route(async (event, db) => {
  const document = await readWhole(db, jobIdOf(event))
  if (!document) throw noSuchJob()
  const files: Zippable = { [JOB_ENTRY]: strToU8(writeDocument(inSchemaOrder(document))) }
  const hashes = [...document.photos.filter(p => !p.withdrawn).map(p => p.hash), ...document.spaces.flatMap(s => s.picture?.hash ?? [])]
  for (const hash of new Set(hashes)) {
    const bytes = await photoBytes(db, hash)
    // Pictures are packed already.
    if (bytes) files[photoEntry(hash)] = [new Uint8Array(bytes), { level: 0 }]
  }
  setHeader(event, 'content-type', 'application/zip')
  setHeader(event, 'content-disposition', `attachment; filename="${archiveNameOf(fileNameOf(document.name))}"`)
  return Buffer.from(zipSync(files, { mtime: new Date(Date.UTC(2000, 0, 1)) }))
})
