import type { Job, Speaker } from '#core/job/schema'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { outputsOf, speakersOf } from '#core/job/tree'
import { speakersOfZone } from '#core/hands/zones'
import { reserveSchool } from '#core/schools/reserve'
import { tapDrawW } from '#core/line/facts'
import type { LineEvaluation } from '#core/line/evaluate'
import { throughsOf } from '#core/line/behind'

/** What gives a zone its level: an output, a control, or nothing but the taps of its speakers. */
export type ZoneMeans = { kind: 'output', labels: string[] } | { kind: 'control', labels: string[] } | { kind: 'taps' }

export interface ZoneFacts {
  zoneId: string
  name: string
  speakers: Speaker[]
  /** Labels of the outputs that it hangs on. */
  outputs: string[]
  means: ZoneMeans
  /** What its speakers draw fully up on their lines, W; null while a line's volts are not known or a unit is no tap. */
  drawW: number | null
}

/** A zone has its own level where everything on its outputs, or everything behind its controls, is in it, and it all is there. */
export function zoneFacts(job: Job, lines: readonly LineEvaluation[]): ZoneFacts[] {
  return job.zones.map(({ id, name }) => {
    const speakers = speakersOfZone(job, id)
    const ids = new Set(speakers.map(s => s.id))
    const touched = outputsOf(job).filter(o => speakersOf(o.wiring).some(s => ids.has(s.id)))
    const isOwn = (within: readonly Speaker[]) => within.every(s => ids.has(s.id))
    const controls = touched.flatMap(o => throughsOf(o.wiring).all).filter(s => s.through.kind === 'control' && isOwn(s.speakers))
    const behind = new Set(controls.flatMap(c => c.speakers.map(s => s.id)))
    const means: ZoneMeans = speakers.length === 0
      ? { kind: 'taps' }
      : speakers.every(s => behind.has(s.id))
        ? { kind: 'control', labels: controls.map(c => c.through.label) }
        : touched.every(o => isOwn(speakersOf(o.wiring))) ? { kind: 'output', labels: touched.map(o => o.label) } : { kind: 'taps' }
    return { zoneId: id, name, speakers, outputs: touched.map(o => o.label), means, drawW: drawOf(speakers, lines) }
  })
}

function drawOf(speakers: readonly Speaker[], lines: readonly LineEvaluation[]): number | null {
  return speakers.reduce<number | null>((sum, { id, load }) => {
    const lineV = lines.find(l => l.kind === 'constant-voltage' && l.speakers.some(s => s.id === id))?.lineV ?? null
    return sum === null || lineV === null || load.kind !== 'tap' ? null : sum + tapDrawW(load, lineV)
  }, 0)
}

/** The three ways to give a zone a level of its own. Common practice, no source. */
export interface ZoneWay {
  kind: 'output' | 'control' | 'taps'
  /** Whether it is what the zone has. */
  has: boolean
  /** For an output: the least power that the chosen school asks of it; for controls: what hangs behind each. W; null not known. */
  needsW: number[] | null
  /** Outputs, or controls: so many. */
  parts: number
  /** For taps: how far it can go down and up from where it is, dB, all its speakers together; null where there are no taps. */
  stepsDb: { down: number, up: number } | null
}

export function zoneWays(job: Job, lines: readonly LineEvaluation[], zone: ZoneFacts): ZoneWay[] {
  const school = reserveSchool(job.practice.reserve)
  const needs = zone.drawW === null ? null : school.requiredW({ tapsW: zone.drawW, reachedW: zone.drawW, lostW: 0, assumedW: 0 })
  const stretches = stretchesOf(job, zone.speakers)
  const drawn = stretches.map(stretch => drawOf(stretch, lines))
  return [
    { kind: 'output', has: zone.means.kind === 'output', needsW: needs === null ? null : [needs], parts: 1, stepsDb: null },
    { kind: 'control', has: zone.means.kind === 'control', needsW: drawn.some(w => w === null) ? null : drawn as number[], parts: stretches.length, stepsDb: null },
    { kind: 'taps', has: zone.means.kind === 'taps', needsW: null, parts: 0, stepsDb: tapSteps(zone.speakers) },
  ]
}

/** Speakers that a control could stand before, together: side by side on one rail. */
export function stretchesOf(job: Job, speakers: readonly Speaker[]): Speaker[][] {
  const stretches: Speaker[][] = []
  for (const speaker of speakers) {
    const last = stretches.at(-1)
    // Where one stands before them already, it stands before all of them.
    const together = last && putBefore(job, [...last, speaker].map(s => s.id), unknownControl('?'), () => '?')
    if (last && together && together !== 'not-beside') last.push(speaker)
    else stretches.push([speaker])
  }
  return stretches
}

/** How far all of them together can be tapped down and up, dB of power. */
function tapSteps(speakers: readonly Speaker[]): ZoneWay['stepsDb'] {
  const ranges = speakers.map(({ load }) => load.kind === 'tap' && load.tapW > 0 && load.tapsW.length > 0
    ? { down: load.tapW / Math.min(load.tapW, ...load.tapsW), up: Math.max(load.tapW, ...load.tapsW) / load.tapW }
    : null)
  if (ranges.length === 0 || ranges.includes(null)) return null
  const least = (pick: (r: { down: number, up: number }) => number) => 10 * Math.log10(Math.min(...ranges.map(r => pick(r!))))
  return { down: least(r => r.down), up: least(r => r.up) }
}
