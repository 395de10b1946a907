import type { OpenedJob } from '#core/job/protocol'
import { readKeptJob, withKept, writeKeptJob, type KeptJob } from '#core/window/keptJob'
import type { WindowState } from '#core/window/state'
import { jobBodies, jobList } from './device'
import { allKept } from './waiting'

/** Jobs that this device keeps for when the server is away. Nothing is lost where it cannot: the server has them. */

const LIST = 'list'
export async function keptJobs(): Promise<KeptJob[]> {
  const text = await jobList.get(LIST).catch(() => null)
  return text === null ? [] : JSON.parse(text) as KeptJob[]
}

/** One after the other: two that write the list at once would lose a line of it. */
let turn: Promise<unknown> = Promise.resolve()
function inTurn<T>(run: () => Promise<T>): Promise<T> {
  const next = turn.then(run, run)
  turn = next.catch(() => undefined)
  return next
}

/** Where the device cannot keep it, it does not: the server has it. */
export function keepJob(state: WindowState, keptAt: number): Promise<void> {
  return inTurn(async () => {
    try {
      const waiting = new Set((await allKept()).map(found => found.jobId))
      const { list, gone } = withKept(await keptJobs(), { jobId: state.jobId, name: state.confirmed!.name, keptAt }, waiting)
      await jobBodies.put([[state.jobId, writeKeptJob(state)]])
      await jobList.put([[LIST, JSON.stringify(list)]])
      await jobBodies.remove(gone)
    }
    catch { /* Full, or closed. */ }
  })
}

export async function keptJob(jobId: string): Promise<OpenedJob | null> {
  const text = await jobBodies.get(jobId).catch(() => null)
  return text === null ? null : readKeptJob(text)
}

/**
 * Wanted here for good, or no more. @returns whether the browser promises not to clear it away when it runs short of room; null where it has no such promise
 */
export function pinJob(jobId: string, isPinned: boolean): Promise<boolean | null> {
  return inTurn(async () => {
    await jobList.put([[LIST, JSON.stringify((await keptJobs()).map(k => k.jobId === jobId ? { ...k, isPinned } : k))]])
    return isPinned && 'storage' in navigator && 'persist' in navigator.storage ? navigator.storage.persist() : null
  })
}
