import type { Amplifier, Input, Job, Source } from '#core/job/schema'

/** What comes in at an amplifier, straight or through mixers of the job. */

export interface Arrival {
  source: Source
  at: Input
  /** The input, with its device where that is another one: "input 2 of Mixer". */
  name: string
  /** How it comes to the amplifier: "input 1", "input 2, through Mixer". */
  way: string
  /** It enters at the amplifier itself. */
  isOwn: boolean
  /** It is another device of the job, whose own inputs are told as well. */
  isDevice: boolean
}

/** Deeper than this no rack is patched; a ring of mixers ends there. */
const DEEPEST = 8

export const inputName = ({ label }: Pick<Input, 'label'>, k: number): string => label.trim() === '' ? `input ${k + 1}` : label.trim()

/** The device of the job that a source is; null for none, and for one that is gone. */
export const deviceOf = (job: Pick<Job, 'amplifiers'>, { deviceId }: Pick<Source, 'deviceId'>): Amplifier | null =>
  deviceId === null ? null : job.amplifiers.find(a => a.id === deviceId) ?? null
/** What a source is called: a device of the job as it is called now. */
export const sourceName = (job: Pick<Job, 'amplifiers'>, source: Pick<Source, 'name' | 'deviceId'>): string => deviceOf(job, source)?.name ?? source.name

export function arrivalsAt(job: Pick<Job, 'amplifiers'>, amplifier: Pick<Amplifier, 'id' | 'name' | 'inputs'>): Arrival[] {
  const all: Arrival[] = []
  const visit = ({ id, name, inputs }: Pick<Amplifier, 'id' | 'name' | 'inputs'>, through: string, seen: readonly string[]): void => {
    const isOwn = id === amplifier.id
    for (const [k, at] of inputs.entries()) {
      if (!at.source) continue
      const device = deviceOf(job, at.source)
      const own = inputName(at, k)
      const way = through === '' ? own : through
      const isDevice = device !== null && !seen.includes(device.id) && seen.length < DEEPEST
      all.push({ source: at.source, at, name: isOwn ? own : `${own} of ${name}`, way, isOwn, isDevice })
      if (isDevice) visit(device, `${way}, through ${device.name}`, [...seen, device.id])
    }
  }
  visit(amplifier, '', [amplifier.id])
  return all
}

/** A source that comes in more than once, and by which ways. */
export interface Twice { source: string, ways: string[] }
export function twiceIn(arrivals: readonly Arrival[]): Twice[] {
  const ways = new Map<string, string[]>()
  for (const { source, way, isDevice } of arrivals) if (!isDevice) ways.set(source.name, [...ways.get(source.name) ?? [], way])
  return [...ways].filter(([, all]) => all.length > 1).map(([source, all]) => ({ source, ways: all }))
}
