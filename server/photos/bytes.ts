import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { MOST_PHOTO_BYTES } from '#core/job/sections/photos/schema'
import { problem } from '../http/problem'

/** The bytes of photos, by their hash. */

/** A picture as devices make it here: JPEG begins and ends so (ISO/IEC 10918-1). */
function isJpeg(bytes: Buffer): boolean {
  return bytes.length > 4 && bytes[0] === 0xFF && bytes[1] === 0xD8 && bytes[2] === 0xFF && bytes.at(-2) === 0xFF && bytes.at(-1) === 0xD9
}

export const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex')

/** Keeps a picture, once. @returns its hash */
export async function keepPhoto(db: Knex, bytes: Buffer): Promise<string> {
  if (bytes.length > MOST_PHOTO_BYTES) throw problem(413, 'too-large', `A photo is at most ${MOST_PHOTO_BYTES / 1000} kB: it is scaled down before it is sent.`)
  if (!isJpeg(bytes)) throw problem(422, 'not-valid', 'This is no JPEG picture, or only a part of one.')
  const hash = hashOf(bytes)
  await db('photo_bytes').insert({ hash, bytes }).onConflict('hash').ignore()
  return hash
}

export async function photoBytes(db: Knex, hash: string): Promise<Buffer | null> {
  const row = await db('photo_bytes').where({ hash }).first('bytes') as { bytes: Buffer } | undefined
  return row?.bytes ?? null
}
