import { strFromU8, unzipSync, type UnzipFileInfo } from 'fflate'
import { checkEntries, hashOfEntry, JOB_ENTRY, type Entry } from '#core/format/archive'
import { InputError } from '#core/quantity/inputError'
import { api } from '~/api/client'

/** A job's archive taken apart: the text of its document, and its pictures put with the server first, so that the job comes in with all of them there. */

/** @throws InputError for what is no archive of a job; ApiError where the server is away: then nothing came in, and the file is as it was */
export async function takeArchive(bytes: Uint8Array): Promise<string> {
  const entries: Entry[] = []
  unpacked(bytes, ({ name, originalSize }) => {
    entries.push({ name, sizeBytes: originalSize })
    return false
  })
  checkEntries(entries)
  // One at a time: three hundred pictures at once would hold the page.
  for (const { name } of entries) {
    const wanted = hashOfEntry(name)
    if (wanted === null) continue
    const { hash } = await api<{ hash: string }>('/photos', { method: 'POST', body: { base64: base64Of(one(bytes, name)) } })
    if (hash !== wanted) throw new InputError(`The photo “${name.slice(7, 19)}…” is not what its name says: it was changed or cut short.`, 0, [])
  }
  return strFromU8(one(bytes, JOB_ENTRY))
}

const one = (bytes: Uint8Array, name: string): Uint8Array => unpacked(bytes, file => file.name === name)[name]!

function unpacked(bytes: Uint8Array, filter: (file: UnzipFileInfo) => boolean): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes, { filter })
  }
  catch {
    throw new InputError('This is no zip archive, or only a part of one.', 0, ['an archive that “with photos” gave'])
  }
}

const PIECE = 0x8000
function base64Of(bytes: Uint8Array): string {
  let text = ''
  for (let k = 0; k < bytes.length; k += PIECE) text += String.fromCharCode(...bytes.subarray(k, k + PIECE))
  return btoa(text)
}
