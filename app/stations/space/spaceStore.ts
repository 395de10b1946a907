import { computed, shallowRef, watch } from 'vue'
import { defineStore } from 'pinia'
import type { Place } from '#core/room/outline'
import type { Space } from '#core/job/schema'
import { peakSchool } from '#core/schools/loudness'
import { dropsById, fieldOf, spaceFacts } from '#core/advice/spaces'
import { levelAtDb } from '#core/room/level'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'

export type SpaceMode = 'level' | 'change'
const NONE: ReadonlySet<string> = new Set()

/** The space that is looked at, what of it is chosen, and how loud it is. */
export const useSpaceStore = defineStore('space', () => {
  const store = useJobStore()
  const evaluation = useEvaluationStore()
  const wantedId = shallowRef<string | null>(null)
  const mode = shallowRef<SpaceMode>('level')
  const chosen = shallowRef<ReadonlySet<string>>(NONE)
  /** Where the level is read, by the keys or a press on the floor. */
  const cross = shallowRef<Place | null>(null)
  /** Chosen places while the hand moves them: nothing is kept until it lets go. */
  const held = shallowRef<Place | null>(null)

  const spaces = computed(() => store.job?.spaces ?? [])
  const kept = computed(() => spaces.value.find(s => s.id === wantedId.value) ?? spaces.value[0] ?? null)
  const space = computed((): Space | null => {
    const [now, by] = [kept.value, held.value]
    if (!now || !by) return now
    return { ...now, spots: now.spots.map(s => chosen.value.has(s.id) ? { ...s, xM: s.xM + by.xM, yM: s.yM + by.yM } : s) }
  })
  const drops = computed(() => dropsById(evaluation.lines))
  // One field as long as the floor is the same: what did not move is not worked out again.
  const floor = computed(() => kept.value ? JSON.stringify({ outline: kept.value.outline, earsM: kept.value.earsM }) : '')
  const field = computed(() => floor.value === '' ? null : fieldOf(JSON.parse(floor.value) as Pick<Space, 'outline' | 'earsM'>))
  const facts = computed(() => store.job && space.value && field.value ? spaceFacts(store.job, drops.value, space.value, field.value) : null)
  /** Level of each cell at full output, dB, beside the floor too; empty while it is not known. */
  const grid = computed(() => facts.value?.level && field.value ? field.value.gridDb() : new Float64Array(0))
  const offsetDb = computed(() => space.value ? -peakSchool(space.value.peaks).db : 0)
  /** What the shades are about: the target, or the average where there is none. */
  const aboutDb = computed(() => facts.value?.targetDb ?? facts.value?.level?.meanDb ?? 0)
  const levelAt = (place: Place): number | null => {
    if (!facts.value?.level || !space.value) return null
    const db = levelAtDb(facts.value.spots.flatMap(s => s.source ?? []), place, space.value.earsM)
    return db === null ? null : db + offsetDb.value
  }
  const spots = computed(() => space.value?.spots.filter(s => chosen.value.has(s.id)) ?? [])

  function look(spaceId: string | null): void {
    if (spaceId !== kept.value?.id) {
      chosen.value = NONE
      cross.value = null
    }
    wantedId.value = spaceId
  }
  // What is chosen may be gone: taken off here, undone, or removed in another window.
  watch(() => kept.value?.spots, (now) => {
    const left = [...chosen.value].filter(id => now?.some(s => s.id === id))
    if (left.length !== chosen.value.size) chosen.value = left.length === 0 ? NONE : new Set(left)
  })
  watch(() => store.id, () => {
    wantedId.value = null
    chosen.value = NONE
    cross.value = null
  })

  return {
    spaces, space, kept, mode, chosen, cross, held, facts, field, grid, offsetDb, aboutDb, levelAt, spots, look,
    choose: (ids: readonly string[]) => { chosen.value = ids.length === 0 ? NONE : new Set(ids) },
  }
})
