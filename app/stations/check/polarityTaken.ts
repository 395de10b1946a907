import { ref } from 'vue'
import { blockedOn } from '#core/check/asked'
import type { Output, PolarityHow, Speaker } from '#core/job/schema'
import { howFacts, howsOf } from '#core/job/sections/readings/hows'
import { coilCount, speakersOf } from '#core/job/tree'

/** How polarity is read here: the way that was used last, where it works at this speaker, else the one that does. */

type Kind = 'polarity' | 'polarity-heard'
const KEY = 'plain-match.polarity'
const kept = ref<Partial<Record<Kind, string>>>({})
let isRead = false

/** The ways that were used last, in this browser. */
export function useHow() {
  if (!isRead) {
    isRead = true
    const [off, on] = (localStorage.getItem(KEY) ?? '').split('\n')
    kept.value = { 'polarity': off, 'polarity-heard': on }
  }
  return {
    kept,
    keep: (kind: Kind, how: PolarityHow): void => {
      kept.value = { ...kept.value, [kind]: how }
      localStorage.setItem(KEY, [kept.value.polarity ?? '', kept.value['polarity-heard'] ?? ''].join('\n'))
    },
  }
}

interface Here { output: Output, speaker: Speaker, hasNeighbour: boolean }

/** Whether a way says anything of this speaker: a battery at the rack does not go through a transformer, a cone is pushed where one drives one pair. */
function works(how: PolarityHow, { output, speaker, hasNeighbour }: Here): boolean {
  if (howFacts(how).proves === 'agreement') return hasNeighbour
  return howFacts(how).proves !== 'run' || howFacts(how).kind === 'polarity-heard' || (!blockedOn(output).has(speaker.id) && (how !== 'meter-push' || coilCount(speaker.load) === 1))
}

export function usualHow(last: string | undefined, kind: Kind, here: Here): PolarityHow {
  const able = howsOf(kind).filter(how => works(how, here))
  return able.find(how => how === last) ?? (kind === 'polarity-heard' && here.hasNeighbour ? 'ear' : able[0] ?? howsOf(kind)[0]!)
}

/** The others of its line, the one before it first, then the one behind, then all others as they hang. */
export function neighboursOf(output: Output, nodeId: string): Speaker[] {
  const speakers = speakersOf(output.wiring)
  const at = speakers.findIndex(s => s.id === nodeId)
  return speakers
    .map((s, k) => ({ s, far: Math.abs(k - at) - (k < at ? 0.5 : 0) }))
    .filter(({ s }) => s.id !== nodeId).sort((a, b) => a.far - b.far).map(({ s }) => s)
}
