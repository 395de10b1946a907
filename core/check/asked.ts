import type { Checks, Job, Output, ReadingKind, Speaker } from '#core/job/schema'
import { together } from '#core/job/heard'
import { factsOf, READING_KINDS } from '#core/job/sections/readings/kinds'
import { DEFAULT_CHECKS } from '#core/job/sections/checks/schema'
import { isGroup } from '#core/network/tree'
import { speakersOf } from '#core/job/tree'
import { atEarsDb, type AtEars } from './levels'

/** What a job wants to be read before it counts as proved. */

/** One place to prove: any of these kinds of reading does it, the usual one there first. `speaker` null: at the head of the line. */
export interface Ask { kinds: readonly ReadingKind[], speaker: Speaker | null }

/**
 * What a job asks for; `together`: speakers that are heard with others, null: where nobody has looked beyond one line. `atEars`: what is known of levels
 * under speakers.
 */
export interface Asked { checks: Checks, together: ReadonlySet<string> | null, atEars?: AtEars }
export const ASKED_UNSAID: Asked = { checks: DEFAULT_CHECKS, together: null }

export function askedOf(job: Pick<Job, 'checks' | 'amplifiers' | 'spaces' | 'zones' | 'kinds'>): Asked {
  return { checks: job.checks, together: together(job), atEars: atEarsDb(job) }
}

/** The readings of every line before its speakers hang: both legs and the pair at the head, each run at its end. */
export const BARE: readonly ReadingKind[] = READING_KINDS.filter(kind => factsOf(kind).phase === 'bare')

/** Every place of a line that is to be proved: the line at its head, and each speaker. */
export function asksOf(output: Output, { checks, together }: Asked): Ask[] {
  const speakers = speakersOf(output.wiring)
  const samples = samplesOf(speakers)
  const isOf = (of: Checks['coils'], speaker: Speaker) => of === 'every' || (of === 'samples' && samples.has(speaker.id))
  const isTogether = (speaker: Speaker) => together === null ? speakers.length > 1 : together.has(speaker.id)
  const blocked = blockedOn(output)
  const bare = checks.pairs === 'none' ? [] : BARE
  const head = (kind: ReadingKind): Ask => ({ kinds: [kind], speaker: null })
  return [
    ...bare.filter(kind => factsOf(kind).at === 'head').map(head), head('line-impedance'),
    ...speakers.flatMap(speaker => [
      ...bare.filter(kind => factsOf(kind).at === 'speaker').map((kind): Ask => ({ kinds: [kind], speaker })),
      ...isOf(checks.coils, speaker) ? [{ kinds: ['coil-dcr'], speaker } as const] : [],
      ...isOf(checks.sounds, speaker) ? [{ kinds: ['sound'], speaker } as const] : [],
      ...checks.polarity === 'every' || (checks.polarity === 'together' && isTogether(speaker)) ? [{ kinds: polarityKinds(blocked.has(speaker.id)), speaker }] : [],
    ]),
  ]
}

/** A battery says nothing through a transformer or a capacitor: there the way round is proved by what is heard. */
const polarityKinds = (isBlocked: boolean): ReadingKind[] => isBlocked ? ['polarity-heard', 'polarity'] : ['polarity', 'polarity-heard']

/** Speakers that no direct current from the head reaches: behind a transformer, a control or a capacitor. */
export function blockedOn(output: Output): Set<string> {
  const blocked = new Set<string>()
  const visit = (group: Output['wiring'] | Parameters<typeof speakersOf>[0], isBehind: boolean): void => {
    if (!isGroup(group)) {
      if (isBehind || group.load.kind === 'tap') blocked.add(group.id)
      return
    }
    const through = 'through' in group ? group.through : undefined
    for (const { node } of group.children) visit(node, isBehind || (through !== undefined && through.kind !== 'inductor'))
  }
  visit(output.wiring, false)
  return blocked
}

/** The first and the last of a line, and one of each kind between: what reaches the last has passed all joints. */
function samplesOf(speakers: readonly Speaker[]): Set<string> {
  const ids = new Set([speakers[0]?.id, speakers.at(-1)?.id].filter(id => id !== undefined))
  const seen = new Set<string>()
  for (const { id, name, load } of speakers) {
    const like = `${name} ${load.kind}`
    if (!seen.has(like)) ids.add(id)
    seen.add(like)
  }
  return ids
}
