import { computed, shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { GearAct } from '#core/gear/acts'
import type { GearAnswer, GearModel } from '#core/gear/protocol'
import { sentAct, type FoundAct, type KeptAct } from '#core/window/keptAct'
import { gearStep, NOTHING_DONE, shownActs, type GearEvent, type GearMessage } from '#core/window/gearWindow'
import { api, ApiError } from '~/api/client'
import { newUuid, windowId } from '~/api/ids'
import { onLive } from '~/api/live'
import { isAnythingUnkept } from '~/storage/device'
import { allActs, keepActs, letGoOfActs, letGoOfKey } from '~/storage/waitingGear'
import { otherWindows } from '~/storage/windows'
import { nextInstant } from './instant'
import { failureOf } from './job'

/** From here on a person is told how far an act has come. */
const LARGE = 500

/**
 * What is done to the library: kept on the device, shown at once, sent once from whichever page is open. What happens is decided in
 * core/window/gearWindow.ts; here it is wired to storage and network.
 */
export const useGearChangesStore = defineStore('gearChanges', () => {
  const window = shallowRef(NOTHING_DONE)
  const isStorageFull = shallowRef(false)
  const unreadable = shallowRef<Extract<FoundAct, { kept: null }>[]>([])
  /** How much of a large act has gone out, 0 to 1; null while none is on its way. */
  const sentPart = shallowRef<number | null>(null)
  /** Counts what makes a reading of the library old. */
  const news = shallowRef(0)
  let timer: ReturnType<typeof setTimeout> | undefined

  const shown = computed(() => shownActs(window.value))
  const waiting = computed(() => window.value.waiting)
  const refused = computed(() => window.value.refused)
  const isAway = computed(() => window.value.isAway)
  const arrivals = computed(() => window.value.arrivals)

  function tell(event: GearEvent): void {
    const { state, messages } = gearStep(window.value, event)
    window.value = state
    for (const message of messages) act(message)
  }

  function act(message: GearMessage): void {
    switch (message.do) {
      case 'keep': return void keepActs(message.kept).then((isKept) => { isStorageFull.value = !isKept })
      case 'let go': return void letGoOfActs(message.ids)
      case 'send': return void send(message.number, message.kept)
      case 'read':
        news.value++
        return
      case 'wait':
        clearTimeout(timer)
        timer = setTimeout(() => tell({ is: 'again' }), message.ms)
    }
  }

  async function send(number: number, { id, act }: KeptAct): Promise<void> {
    const isLarge = act.do !== 'set' && (act.do === 'add' ? act.models : act.ids).length >= LARGE
    try {
      if (isLarge) sentPart.value = 0
      const answer = await api<GearAnswer>('/gear/acts', { method: 'POST', text: sentAct({ id, act }), ...isLarge ? { onSent: (part: number) => { sentPart.value = part } } : {} })
      tell({ is: 'answered', number, answer })
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
      tell({ is: 'failed', number, problem: failureOf(error) })
    }
    finally {
      if (isLarge) sentPart.value = null
    }
  }

  function done(act: GearAct, says: string): string {
    const id = newUuid()
    tell({ is: 'done', kept: { id, by: windowId(), at: nextInstant(), says, act, refused: null } })
    return id
  }

  /** Takes over what earlier windows could not send. */
  async function look(): Promise<void> {
    const mine = new Set(window.value.refused.map(k => k.id))
    const [others, found] = await Promise.all([otherWindows(), allActs()])
    unreadable.value = found.flatMap(f => f.kept ? [] : [f])
    isStorageFull.value = isStorageFull.value && isAnythingUnkept()
    const kept = found.flatMap(({ kept }) => kept && (!others.has(kept.by) || mine.has(kept.id)) ? [kept] : [])
    tell({ is: 'found', kept, refused: [...mine] })
  }

  /** From here on, as long as the page lives. */
  function begin(): void {
    onLive((message) => {
      if (message === 'gear' || message === 'gap') news.value++
      if (message === 'gap') void look().then(() => tell({ is: 'again' }))
    })
    addEventListener('online', () => tell({ is: 'again' }))
    void look()
  }

  /** Does a refused change after all, on top of what stands there now. */
  async function force({ id, act }: KeptAct): Promise<void> {
    if (act.do !== 'set') return
    const { versions } = await api<GearModel>(`/gear/${act.id}`)
    tell({ is: 'forced', id, newId: newUuid(), at: nextInstant(), now: versions[0]!.body as unknown as Record<string, unknown> })
  }

  async function throwAway(key: string): Promise<void> {
    await letGoOfKey(key)
    await look()
  }

  return {
    shown, waiting, refused, unreadable, isAway, isStorageFull, sentPart, news, arrivals, begin, done, force, throwAway,
    tryAgain: () => tell({ is: 'again' }),
    dismiss: (id: string) => tell({ is: 'dismissed', id }),
    hasRead: (upTo: number) => tell({ is: 'read', arrivals: upTo }),
  }
})
