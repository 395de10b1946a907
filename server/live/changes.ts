import { EventEmitter } from 'node:events'
import pg from 'pg'
import { databaseUrl } from '../database'
import { connectionOf } from '../database/connect'
import { CHANGES_CHANNEL } from '../database/channel'

export type Change = { jobId: string, revision: number } | { gear: true } | { devices: true } | { takenBack: string } | { here: string }

const emitter = new EventEmitter().setMaxListeners(0)
let client: pg.Client | null = null
let connecting = false

const RETRY_MS = 1000
/** A connection that only listens would not notice that the other side has frozen: it is asked now and then. */
const ASK_MS = 15_000

/**
 * Calls back for every change of any job, and of the library, on this database, whichever server made it. `onGap` is called when changes
 * may have been missed: the listening connection was away.
 */
export function onChange(listener: (change: Change) => void, onGap: () => void): () => void {
  emitter.on('change', listener)
  emitter.on('gap', onGap)
  void listen()
  return () => {
    emitter.off('change', listener)
    emitter.off('gap', onGap)
  }
}

/** One connection a server, opened with the first listener and kept. */
async function listen(): Promise<void> {
  if (client || connecting) return
  connecting = true
  const next = new pg.Client(connectionOf(databaseUrl()))
  try {
    next.on('notification', ({ payload }) => emitter.emit('change', JSON.parse(payload ?? '{}') as Change))
    next.on('error', () => lost(next))
    next.on('end', () => lost(next))
    await next.connect()
    await next.query(`listen ${CHANGES_CHANNEL}`)
    client = next
    emitter.emit('gap')
    keepAsking(next)
  }
  catch {
    void next.end().catch(() => undefined)
    setTimeout(() => void listen(), RETRY_MS).unref()
  }
  finally {
    connecting = false
  }
}

function keepAsking(which: pg.Client): void {
  const timer = setInterval(() => {
    if (client !== which) return clearInterval(timer)
    which.query('select 1').catch(() => {
      clearInterval(timer)
      lost(which)
      void which.end().catch(() => undefined)
    })
  }, ASK_MS)
  timer.unref()
}

function lost(which: pg.Client): void {
  if (client !== which) return
  client = null
  setTimeout(() => void listen(), RETRY_MS).unref()
}

export async function stopListening(): Promise<void> {
  const was = client
  client = null
  await was?.end().catch(() => undefined)
}
