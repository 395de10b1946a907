/** What a script tells its user: each step, how long it took, and what to do when it fails. */

/** A failure whose message is the whole of what the user needs. */
export class Failure extends Error {}

export function say(text) {
  process.stdout.write(`${text}\n`)
}

/** The time since then, in words. */
export function seconds(from) {
  return `${((performance.now() - from) / 1000).toFixed(1)} s`
}

export async function step(title, run) {
  const from = performance.now()
  process.stdout.write(`${title} … `)
  try {
    const outcome = await run()
    const note = typeof outcome === 'string' ? `${outcome}, ` : ''
    say(`${note}${seconds(from)}`)
    return outcome
  }
  catch (error) {
    say('failed')
    throw error
  }
}

/** What went wrong, for its user: a folder that cannot be written to is no failure of the program. */
export function plainly(error) {
  if (error instanceof Failure) return error.message
  if (['EROFS', 'EACCES', 'EPERM'].includes(error.code) && error.path) return `${error.path} cannot be written to: ${error.code === 'EROFS' ? 'the disk is read-only' : 'it is not allowed to this user'}. Start it from a folder of your own.`
  if (error.code === 'ENOSPC') return 'The disk is full. Make room, then run the same again.'
  return error.stack
}

/** Runs a script's main function and ends the process with a plain message when it fails. */
export async function main(run) {
  try {
    await run()
  }
  catch (error) {
    process.stderr.write(`\n${plainly(error)}\n`)
    process.exit(1)
  }
}
