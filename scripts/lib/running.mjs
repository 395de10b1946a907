import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'

/** What a start has running, noted for the next one: only the holder of the lock reads or writes it. */
const NOTE = '.data/running.json'

export function noteRunning(note) {
  mkdirSync('.data', { recursive: true })
  writeFileSync(NOTE, JSON.stringify(note))
}

export function forgetRunning() {
  rmSync(NOTE, { force: true })
}

/** Ends the server of a start that was killed before it could. The process is looked at first: its number may be another's by now. */
export async function endLeftOver() {
  if (!existsSync(NOTE)) return
  let note = {}
  try {
    note = JSON.parse(readFileSync(NOTE, 'utf8'))
  }
  catch {
    // Cut short while it was written: nothing can be told from it.
  }
  if (Number.isInteger(note.serverPid) && isOurServer(note.serverPid, note.entry)) {
    signal(note.serverPid, 'SIGTERM')
    for (let k = 0; k < 80 && isOurServer(note.serverPid, note.entry); k++) await new Promise(resolve => setTimeout(resolve, 100))
    signal(note.serverPid, 'SIGKILL')
  }
  forgetRunning()
}

function isOurServer(pid, entry) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').includes(entry)
  }
  catch {
    return false
  }
}

function signal(pid, name) {
  try {
    process.kill(pid, name)
  }
  catch {
    // It is gone already.
  }
}
