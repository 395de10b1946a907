import { shallowRef } from 'vue'
import { navigateTo, useRoute } from '#imports'
import { partsOf, together } from '#core/job/edits'
import { retapEach } from '#core/hands/many/many'
import type { Space } from '#core/job/schema'
import { cableOn, outputOf } from '#core/job/tree'
import { writeCable } from '#core/quantity/cable'
import { tapSpace } from '#core/hands/spaceSpeakers'
import { addSpace, addSpot, hangSpace, layOut, leadsAgain, middleOf, NOT_HUNG_WORDS, nudge, setSpace, speakerAt, takeOff, type HangTo } from '#core/hands/spaces'
import { overlapOf } from '#core/room/coverage'
import { layoutOf, outsideShare, outsideWords } from '#core/room/layout'
import { contains } from '#core/room/outline'
import { goInto } from '~/composables/fetchedLater'
import { newId } from '~/api/ids'
import { useUnits } from '~/composables/useUnits'
import { addressOf } from '~/stations/station'
import { match } from '~/stations/match/station'
import { useJobStore } from '~/stores/job'
import { besidePlace, nudgeM, snapped } from './floorPlan'
import { useSpaceStore } from './spaceStore'

/** The cable that a new line is drawn in until somebody says otherwise. Common practice, no source: it is on every shelf. */
const TURN_DEG = 5

/** What hands do at the spaces; each deed is one edit. */
export function useSpaceActions() {
  const store = useJobStore()
  const at = useSpaceStore()
  const { units } = useUnits()
  const route = useRoute()
  /** A level measured at the cross is being typed. */
  const isMeasuring = shallowRef(false)

  function set(to: Partial<Omit<Space, 'id' | 'spots' | 'measured'>>): boolean {
    return at.kept ? store.edit(setSpace(at.kept, to)) : false
  }

  function add(): void {
    if (!store.job) return
    const { edit, spaceId } = addSpace(store.job, newId)
    const last = store.job.spaces.at(-1)
    if (!store.edit(edit)) return
    if (last) store.say(`Like ${last.name}: its use, height and speaker are taken over; its floor and noise are to be said`)
    at.look(spaceId)
    at.mode = 'change'
    void goInto('.space-form input')
  }

  function other(by: 1 | -1): void {
    const k = at.spaces.findIndex(s => s.id === at.kept?.id)
    const next = at.spaces[Math.max(0, Math.min(at.spaces.length - 1, k + by))]
    if (next) at.look(next.id)
  }

  /** Lays the grid out; says why where it cannot. */
  function lay(over: Partial<Pick<Space, 'turnDeg' | 'overlap'>> = {}): void {
    const { job } = store
    const space = at.kept
    if (!job || !space) return
    const wanted = { ...space, ...over }
    const circleM = at.facts?.circleM ?? null
    if (at.facts?.kind === null) return void (store.sayNot('Choose the speaker of this space first: its coverage angle says how far apart.'))
    if (circleM === null) return void (store.sayNot('Its coverage angle is not stated, or covers all round: add places by hand (a).'))
    const { factor, pattern } = overlapOf(wanted.overlap)
    const layout = layoutOf(space.outline, { spacingM: factor * circleM, pattern, turnDeg: wanted.turnDeg })
    if (!layout) return void (store.sayNot('More than 400 places: this speaker covers too little for so large a floor, or hangs too low.'))
    const changed = setSpace(space, over)
    const laid = layOut(job, space, layout.places, newId)
    const gone = laid ? partsOf(laid).filter(e => e.kind === 'node.remove').length : 0
    if (store.edit(together([...changed ? partsOf(changed) : [], ...laid ? partsOf(laid) : []]))) {
      const left = overlapOf(wanted.overlap).factor < 1 ? outsideWords(outsideShare(space.outline, layout.places, circleM)) : ''
      store.say(`${layout.places.length} places${left === '' ? '' : `; ${left}`}${gone > 0 ? `; ${gone} ${gone === 1 ? 'speaker' : 'speakers'} taken off with theirs` : ''}`)
    }
  }

  function addPlace(): void {
    const space = at.kept
    if (!space) return
    const place = at.cross ?? middleOf(space)
    const added = addSpot(space, snapped(place, units.value), newId)
    if (!added) return void (store.sayNot('That is beside the floor.'))
    if (store.edit(added.edit)) at.choose([added.spotId])
  }

  function off(): void {
    const { job } = store
    if (!job || !at.kept || at.chosen.size === 0) return
    const speakers = at.spots.filter(s => speakerAt(job, s)).length
    const count = at.chosen.size
    if (store.edit(takeOff(job, at.kept, [...at.chosen]))) store.say(`${count} ${count === 1 ? 'place' : 'places'} taken off${speakers > 0 ? `, ${speakers} ${speakers === 1 ? 'speaker' : 'speakers'} with ${count === 1 ? 'it' : 'them'}` : ''}`)
  }

  function arrow(xStep: number, yStep: number, isLarge: boolean): void {
    const space = at.kept
    if (!space) return
    const m = nudgeM(units.value, isLarge)
    if (at.chosen.size > 0) {
      if (!store.edit(nudge(space, [...at.chosen], { xM: xStep * m, yM: yStep * m }))) store.sayNot('The wall is there.')
      return
    }
    const from = at.cross ?? middleOf(space)
    const step = isLarge ? m : 5 * m
    const to = at.cross ? { xM: from.xM + xStep * step, yM: from.yM + yStep * step } : from
    if (contains(space.outline, to)) at.cross = to
  }

  /** All of the space on one tap: the speakers that hang, and those that are to. */
  function tapAll(tapW: number): void {
    const { job } = store
    const space = at.kept
    if (!job || !space) return
    store.edit(tapSpace(job, space, tapW))
  }
  function tap(by: 1 | -1): void {
    const taps = at.facts?.taps
    if (!taps || !store.job || !at.kept) return void (store.sayNot('They hang on no taps here.'))
    if (taps.nowW === null) {
      const { edit } = retapEach(store.job, at.kept.spots.flatMap(s => s.nodeId ?? []), by)
      if (!store.edit(edit)) store.sayNot('No tap further.')
      return
    }
    const k = taps.steps.findIndex(s => s.tapW === taps.nowW)
    const next = taps.steps[k + by]
    if (next) tapAll(next.tapW)
    else store.sayNot('No tap further.')
  }

  /** Where speakers of this space hang already, or would go. */
  function usualLine(): HangTo {
    const { job } = store
    for (const spot of at.kept?.spots ?? []) {
      const found = job && speakerAt(job, spot)
      if (found) return { outputId: found.output.id }
    }
    return { lineV: at.facts?.kind?.model.scales[0]?.lineV ?? 70.71 }
  }
  function hang(to: HangTo = usualLine()): void {
    const { job } = store
    const space = at.kept
    if (!job || !space) return
    const { taps } = at.facts ?? {}
    const answer = hangSpace(job, space, to, { tapW: space.tapW ?? taps?.lowestW ?? null, cable: null, newId })
    if (typeof answer === 'string') return void (store.sayNot(NOT_HUNG_WORDS[answer]))
    const count = partsOf(answer.edit).filter(e => e.kind === 'node.add').length
    if (!store.edit(answer.edit)) return
    const cable = cableOn(outputOf(store.opened, answer.outputId).output.wiring)
    store.say(`${count} ${count === 1 ? 'speaker hangs' : 'speakers hang'} now${cable ? `, on ${writeCable(cable)} as their line has` : '; say once of which size their cable is'}`)
  }
  function lengthsAgain(): void {
    const { job } = store
    if (job && at.kept && !store.edit(leadsAgain(job, at.kept, null))) store.sayNot('Every length is as the plan has it.')
  }

  function toSheet(): void {
    const { job } = store
    const [spot] = at.spots
    const found = job && spot ? speakerAt(job, spot) : null
    if (!found) return void (store.sayNot('No speaker hangs here yet.'))
    void navigateTo({ path: addressOf(String(route.params.id), match), query: { line: found.output.id, speaker: found.speaker.id } })
  }

  return {
    isMeasuring, set, add, other, lay, addPlace, off, arrow, tapAll, tap, hang, usualLine, lengthsAgain, toSheet,
    beside: (by: 1 | -1) => {
      const next = at.kept && besidePlace(at.kept.spots, at.spots[0]?.id ?? null, by)
      if (next) at.choose([next.id])
    },
    all: () => at.choose(at.kept?.spots.map(s => s.id) ?? []),
    turn: (by: 1 | -1) => {
      const now = at.kept?.turnDeg ?? 0
      lay({ turnDeg: (now + by * TURN_DEG + 540) % 360 - 180 })
    },
    measure: () => {
      if (!at.cross && at.kept) at.cross = middleOf(at.kept)
      isMeasuring.value = true
      void goInto('.measure input')
    },
    leave: () => {
      isMeasuring.value = false
      if (at.chosen.size > 0) at.choose([])
      else at.cross = null
    },
  }
}
