import { createHash } from 'node:crypto'
import { connect, createServer } from 'node:net'
import { PROJECT } from './project.mjs'

/**
 * One starter a folder. The lock is a name in the system's own (abstract) namespace of sockets: taken by one at a time, let go by
 * the system however its holder ends, and whoever comes second can ask the holder how far it is. A file with a process number
 * can do none of the three.
 */
const NAME = `\0plain-match-${createHash('sha256').update(PROJECT).digest('hex').slice(0, 24)}`

/**
 * Takes the lock. `{ isOurs: true, say }` with `say(state)` to tell those who ask; or `{ isOurs: false, state }` with what its
 * holder says of itself: `{ pid, url }`, url null while it is starting.
 */
export function takeLock() {
  let state = { pid: process.pid, url: null }
  return new Promise((resolve, reject) => {
    const server = createServer(socket => socket.on('error', () => {}).end(JSON.stringify(state)))
    server.on('error', (error) => {
      if (error.code === 'EADDRINUSE') askHolder().then(held => resolve({ isOurs: false, state: held }))
      else reject(error)
    })
    server.listen(NAME, () => {
      server.unref()
      resolve({ isOurs: true, say: (told) => { state = { ...state, ...told } } })
    })
  })
}

function askHolder() {
  return new Promise((resolve) => {
    let text = ''
    const nothing = { pid: null, url: null }
    const socket = connect(NAME)
    socket.setTimeout(3000, () => socket.destroy())
    socket.on('data', chunk => text += chunk)
    socket.on('error', () => resolve(nothing))
    socket.on('close', () => {
      try {
        resolve(JSON.parse(text))
      }
      catch {
        resolve(nothing)
      }
    })
  })
}
