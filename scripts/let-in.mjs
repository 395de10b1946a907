import { renderUnicodeCompact } from 'uqr'
import { codeAddress } from '#core/door/codeAddress'
import { connect } from '../server/database/connect.ts'
import { makeCode } from '../server/door/repository.ts'
import { Failure, main, say } from './lib/say.mjs'
import { takeLock } from './lib/lock.mjs'

/**
 * Shows a code at the terminal of the machine that serves: for a machine with no screen, and behind a balancer for the first device. Whoever comes in by it may
 * let others in.
 */
async function fromServer() {
  const lock = await takeLock()
  if (lock.isOurs || !lock.state.url) throw new Failure('Plain Match does not run from this folder. Start it first, or name its database: DATABASE_URL=… npm run let-in')
  const response = await fetch(`${lock.state.url}/api/devices/code`, { method: 'POST', body: JSON.stringify({ mayLetIn: true }), headers: { 'content-type': 'application/json' } })
  const answer = await response.json()
  if (!response.ok) throw new Failure(answer.error?.message ?? 'The server did not make a code.')
  return answer
}

async function fromDatabase(url) {
  const db = connect(url)
  try {
    return { ...await makeCode(db, true), entrance: null }
  }
  finally {
    await db.destroy()
  }
}

await main(async () => {
  const url = process.env.DATABASE_URL
  const { code, expiresAt, entrance } = url ? await fromDatabase(url) : await fromServer()
  say(`Code  ${code.slice(0, 3)} ${code.slice(3)}   until ${new Date(expiresAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}, for one device, which may then let others in.`)
  if (entrance) say(`\n${entrance.origin}\n\n${renderUnicodeCompact(codeAddress(entrance.origin, code))}`)
  process.exit(0)
})
