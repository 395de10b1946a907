import { readFileSync, readdirSync } from 'node:fs'

/** A process and those that it has begun, by their numbers. */
export function familyOf(pid: number): number[] {
  const all = readdirSync('/proc').filter(name => /^\d+$/.test(name)).map(Number)
  return all.filter(one => one === pid || statusOf(one, 'PPid') === pid)
}

/** What they hold in memory, MB. */
export const residentMb = (pid: number): number => familyOf(pid).reduce((sum, one) => sum + (statusOf(one, 'VmRSS') ?? 0), 0) / 1024

function statusOf(pid: number, field: string): number | null {
  try {
    const found = new RegExp(`^${field}:\\s+(\\d+)`, 'm').exec(readFileSync(`/proc/${pid}/status`, 'utf8'))
    return found ? Number(found[1]) : null
  }
  catch {
    return null
  }
}
