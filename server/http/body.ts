import type { H3Event } from 'h3'
import { LONGEST_FILE } from '#core/format/plainMatch'
import { problem } from './problem'

/** The largest body taken but for a job file. */
const LONGEST_BODY = 20_000_000
/** A job file of the longest kind travels as a text in JSON: its quotes are two bytes each. */
export const LONGEST_FILE_BODY = 2 * LONGEST_FILE + 1000
/** What is too large is read on and thrown away up to this, so that an honest sender hears why. */
const MOST_DRAINED = 1_000_000_000
/** Longest wait for a body, ms: a slow phone sends a large file in less. */
const LONGEST_WAIT_MS = 60_000
/** Whoever sends nothing for so long has gone. */
const LONGEST_PAUSE_MS = 10_000
/** Bytes of all bodies that are being received at once: twenty stalled senders of 15 MB each took 404 MB. */
const MOST_AT_ONCE = 96_000_000
let atOnce = 0

const tooLarge = (most: number) => problem(413, 'too-large', `More than ${Math.min(most, LONGEST_FILE) / 1e6} MB: too large for a job.`)

/**
 * The body as text. Counted while it is read: a body without a stated length must not fill the memory (700 MB in chunks took
 * a server that read first and counted then to 1.4 GB).
 */
export function readText(event: H3Event, most = LONGEST_BODY): Promise<string> {
  const { req } = event.node
  return new Promise((resolve, reject) => {
    let chunks: Buffer[] = []
    let [size, held] = [0, 0]
    let isCrowded = false
    const letGo = () => {
      chunks = []
      atOnce -= held
      held = 0
    }
    const giveUp = () => {
      clearTimeout(timer)
      clearTimeout(pause)
      letGo()
      reject(size > most ? tooLarge(most) : problem(408, 'too-slow', 'The request took too long to arrive. Send it again.'))
      req.pause()
      event.node.res.once('finish', () => req.destroy())
    }
    const timer = setTimeout(giveUp, LONGEST_WAIT_MS)
    const pause = setTimeout(giveUp, LONGEST_PAUSE_MS)
    req.on('data', (chunk: Buffer) => {
      pause.refresh()
      size += chunk.length
      isCrowded ||= atOnce + chunk.length > MOST_AT_ONCE
      if (size > most || isCrowded) {
        letGo()
        if (size > MOST_DRAINED) req.destroy()
        return
      }
      chunks.push(chunk)
      atOnce += chunk.length
      held += chunk.length
    })
    req.on('end', () => {
      clearTimeout(timer)
      clearTimeout(pause)
      if (size > most) reject(tooLarge(most))
      else if (isCrowded) reject(problem(503, 'crowded', 'Several large files are coming in at once. Send it again in a minute.'))
      else resolve(Buffer.concat(chunks).toString('utf8'))
      letGo()
    })
    const cutShort = () => {
      clearTimeout(timer)
      clearTimeout(pause)
      letGo()
      reject(problem(400, 'cut-short', 'The request was cut short.'))
    }
    req.on('error', cutShort)
    // Comes after a whole body as well, and changes nothing then.
    req.on('close', cutShort)
  })
}
