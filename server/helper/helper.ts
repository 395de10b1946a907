import { fork, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { connect } from 'node:net'
import { setPriority, tmpdir } from 'node:os'
import { join } from 'node:path'
import { BUILD } from './build'

/**
 * A second process of this very server, for what takes long: large files, large jobs, the telling of them. While it computes, this one answers
 * everybody else. (Cutting the work into slices lost: the database's driver reads a document of 15 MB in one piece, and one line with two
 * hundred curves is one evaluation.) It is made when something heavy first comes, listens on a socket in a folder that only this user may
 * enter, and goes after a while without work, its memory with it; without it, this process does the work itself.
 */

export const isHelper = process.env.PLAIN_MATCH_HELPER === '1'

/** Without work for so long, it goes. */
const REST_MS = 20_000
const START_MS = 15_000
const NICE = 5

interface Helper { child: ChildProcess, socketPath: string, ready: Promise<boolean>, working: number }
let helper: Helper | null = null
let resting: ReturnType<typeof setTimeout> | undefined

/** Runs `work` with the helper's socket, or with null where there is none. */
export async function withHelper<T>(work: (socketPath: string | null) => Promise<T>): Promise<T> {
  // While it is worked on, the builder's own server is no program that could be run a second time.
  if (isHelper || process.env.NODE_ENV !== 'production') return work(null)
  // One that was killed is known to be gone a moment later than it is.
  if (helper && await helper.ready && !await isListening(helper.socketPath)) helper = null
  const mine = helper ??= startable()
  if (!mine) return work(null)
  mine.working++
  clearTimeout(resting)
  try {
    return await work(await mine.ready ? mine.socketPath : null)
  }
  finally {
    mine.working--
    if (helper === mine && mine.working === 0) {
      resting = setTimeout(stopHelper, REST_MS)
      resting.unref()
    }
  }
}

/** Has the helper do a job that is told by a message; false where there is no helper, or it ended before it was done. */
export function helperDoes(task: HelperTask): Promise<boolean> {
  return withHelper(async (socketPath) => {
    const child = helper?.child
    if (socketPath === null || !child) return false
    return new Promise<boolean>((resolve) => {
      const done = (answer: unknown) => {
        if ((answer as Partial<HelperTask> | null)?.tell !== task.tell) return
        child.off('message', done)
        resolve(true)
      }
      child.on('message', done)
      child.once('exit', () => resolve(false))
      child.send(task)
    })
  })
}
export interface HelperTask { tell: string }

export function stopHelper(): void {
  helper?.child.kill('SIGTERM')
  helper = null
}

/** No folder can be made, no process more: then without one. */
function startable(): Helper | null {
  try {
    return start()
  }
  catch {
    return null
  }
}

function start(): Helper {
  const folder = mkdtempSync(join(tmpdir(), 'plain-match-'))
  const socketPath = join(folder, 'helper')
  const child = fork(process.argv[1]!, [], { env: { ...process.env, PLAIN_MATCH_HELPER: '1', PLAIN_MATCH_BUILD_ID: BUILD, NITRO_UNIX_SOCKET: socketPath } })
  // Who waits for something small goes first where there are fewer processors than processes.
  if (child.pid !== undefined) setPriority(child.pid, NICE)
  const gone = new Promise<boolean>((resolve) => {
    child.once('error', () => resolve(false))
    child.once('exit', () => {
      rmSync(folder, { recursive: true, force: true })
      if (helper?.child === child) helper = null
      resolve(false)
    })
  })
  return { child, socketPath, ready: Promise.race([gone, answers(socketPath)]), working: 0 }
}

async function answers(socketPath: string): Promise<boolean> {
  for (const until = Date.now() + START_MS; Date.now() < until; await new Promise(resolve => setTimeout(resolve, 15))) {
    if (await isListening(socketPath)) return true
  }
  return false
}

function isListening(socketPath: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(socketPath, () => {
      socket.destroy()
      resolve(true)
    })
    socket.once('error', () => resolve(false))
  })
}
