import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'

const NOTE = '.data/running.json'

/** The started application of this folder, if it is still there: its note, the process, and its answer are all looked at. */
export async function runningApplication() {
  if (!existsSync(NOTE)) return null
  try {
    const note = JSON.parse(readFileSync(NOTE, 'utf8'))
    process.kill(note.pid, 0)
    const answer = await fetch(`${note.url}/api/health`, { signal: AbortSignal.timeout(3000) })
    return answer.ok ? note : null
  }
  catch {
    return null
  }
}

export function noteRunning(url) {
  mkdirSync('.data', { recursive: true })
  writeFileSync(NOTE, JSON.stringify({ pid: process.pid, url }))
}

export function forgetRunning() {
  rmSync(NOTE, { force: true })
}
