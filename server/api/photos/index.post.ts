import { z } from 'zod'
import { MOST_PHOTO_BYTES } from '#core/job/sections/photos/schema'
import { readJson, route } from '../../http/route'
import { keepPhoto } from '../../photos/bytes'

/** Four characters carry three bytes. */
const LONGEST = Math.ceil(MOST_PHOTO_BYTES / 3) * 4
const body = z.strictObject({ base64: z.base64('must be base64').max(LONGEST, `must be at most ${MOST_PHOTO_BYTES / 1000} kB`) })

/** Keeps a photo; sent again it is there once. */
export default route(async (event, db) => {
  const { base64 } = await readJson(event, body, LONGEST + 1000)
  return { hash: await keepPhoto(db, Buffer.from(base64, 'base64')) }
})
