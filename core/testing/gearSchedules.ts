import { bodyWith, changedWords, rowsAfter, takingBack, type GearAct, type NewModel } from '#core/gear/acts'
import { unstatedModel, type Model } from '#core/gear/models'
import { LIST_KEYS, type GearAnswer, type GearRow } from '#core/gear/protocol'
import { same } from '#core/quantity/same'
import { keptActKey, readKeptAct, writeKeptAct, type KeptAct } from '#core/window/keptAct'
import { gearStep, NOTHING_DONE, shownActs, type GearEvent, type GearWindow } from '#core/window/gearWindow'
import { counter } from './jobs'
import { seeded } from './trees'

/**
 * Windows at the library in a world where everything that can go wrong does: requests are lost, come twice, late, answers are lost, windows
 * are closed and others take over what they left. The windows are the real ones (core/window/gearWindow.ts); the server here counts acts by
 * their ids as the real one does (tried against it in tests/http).
 */

interface Held extends NewModel { version: number, isRetired: boolean }

class ModelLibrary {
  readonly models = new Map<string, Held>()
  readonly taken = new Map<string, number>()

  take(id: string, act: GearAct): GearAnswer {
    if (this.taken.has(id)) return { status: 'done' }
    const refused = this.change(act)
    if (refused) return refused
    this.taken.set(id, 1)
    return { status: 'done' }
  }

  private change(act: GearAct): GearAnswer | null {
    const gone: GearAnswer = { status: 'refused', code: 'not-there', message: 'There is no such model.' }
    switch (act.do) {
      case 'add':
        for (const model of act.models) if (!this.models.has(model.id)) this.models.set(model.id, { ...model, version: 1, isRetired: false })
        return null
      case 'retire': {
        if (!act.ids.every(id => this.models.has(id))) return gone
        for (const id of act.ids) this.models.set(id, { ...this.models.get(id)!, isRetired: act.retired })
        return null
      }
      case 'set': {
        const model = this.models.get(act.id)
        if (!model) return gone
        const now = model.body as unknown as Record<string, unknown>
        const other = Object.entries(act.was).find(([field, value]) => !same(now[field], value))
        if (other) return { status: 'refused', code: 'changed-meanwhile', message: changedWords(act, other[0], now[other[0]]) }
        const body = bodyWith(model.body, act)
        if (body) this.models.set(act.id, { ...model, body, version: model.version + 1 })
        return null
      }
    }
  }

  rows(): GearRow[] {
    return [...this.models.values()].map(({ id, version, isRetired, kind, body }) =>
      ({ id, version, isRetired, usedIn: 0, values: LIST_KEYS[kind].map(key => (body as unknown as Record<string, unknown>)[key]) }))
      .sort((a, b) => byName(a, b))
  }
}
const nameOf = (row: GearRow) => String(row.values[0]).toLowerCase()
const byName = (a: GearRow, b: GearRow) => nameOf(a) < nameOf(b) ? -1 : nameOf(a) > nameOf(b) ? 1 : a.id < b.id ? -1 : 1

interface Tab { by: string, window: GearWindow, rows: readonly GearRow[], timers: number, life: number, isOpen: boolean }
type Parcel = { tab: Tab, life: number } & ({ to: 'server', number: number, kept: KeptAct } | { to: 'tab', run: () => void, number: number | null } | { to: 'rows' })

export interface GearSchedule { made: number, refused: number, dismissed: number, trouble: string | null }

/** Plays one schedule; `trouble` says what was lost, doubled or left hanging. */
export function playGearSchedule(seed: number): GearSchedule {
  const chance = seeded(seed)
  const server = new ModelLibrary()
  const storage = new Map<string, string>([[keptActKey('damaged'), '{"version": 1, "at"']])
  const tabs: Tab[] = Array.from({ length: 2 + Math.floor(chance() * 2) }, (_, k) => ({ by: `w${k}`, window: NOTHING_DONE, rows: [], timers: 0, life: 0, isOpen: false }))
  const nextId = counter(`s${seed}a`)
  let [parcels, clock, models]: [Parcel[], number, number] = [[], 0, 0]
  const made = new Set<string>()
  const dismissed = new Set<string>()
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)]!

  function tell(tab: Tab, event: GearEvent): void {
    const { state, messages } = gearStep(tab.window, event)
    tab.window = state
    for (const message of messages) {
      switch (message.do) {
        case 'keep': for (const kept of message.kept) storage.set(keptActKey(kept.id), writeKeptAct(kept)); break
        case 'let go': for (const id of message.ids) storage.delete(keptActKey(id)); break
        case 'send': parcels.push({ tab, life: tab.life, to: 'server', number: message.number, kept: message.kept }); break
        case 'wait': tab.timers++; break
        case 'read': parcels.push({ tab, life: tab.life, to: 'rows' })
      }
    }
  }
  function keptBy(living: ReadonlySet<string>): KeptAct[] {
    return [...storage].flatMap(([key, text]) => readKeptAct(key, text).kept ?? []).filter(kept => !living.has(kept.by))
  }
  function look(tab: Tab): void {
    const living = new Set(tabs.filter(t => t !== tab && t.isOpen).map(t => t.by))
    const refused = tab.window.refused.map(k => k.id)
    const mine = new Set(refused)
    const kept = keptBy(new Set()).filter(k => !living.has(k.by) || mine.has(k.id))
    // A database of the browser answers later: by then some of it may have arrived.
    parcels.push({ tab, life: tab.life, to: 'tab', number: null, run: () => tell(tab, { is: 'found', kept, refused }) })
  }
  function open(tab: Tab): void {
    Object.assign(tab, { window: NOTHING_DONE, rows: [], timers: 0, life: tab.life + 1, isOpen: true })
    parcels.push({ tab, life: tab.life, to: 'rows' })
    look(tab)
  }
  function close(tab: Tab): void {
    tab.life++
    tab.isOpen = false
  }
  function deliver(parcel: Parcel): void {
    const { tab, life } = parcel
    if (parcel.to === 'server') {
      const answer = server.take(parcel.kept.id, JSON.parse(JSON.stringify(parcel.kept.act)) as GearAct)
      parcels.push({ tab, life, to: 'tab', number: parcel.number, run: () => tell(tab, { is: 'answered', number: parcel.number, answer }) })
    }
    else if (tab.life !== life) return
    else if (parcel.to === 'tab') parcel.run()
    else {
      const [rows, { arrivals }] = [server.rows(), tab.window]
      parcels.push({ tab, life, to: 'tab', number: null, run: () => {
        tab.rows = rows
        tell(tab, { is: 'read', arrivals })
      } })
    }
  }
  const numberOf = (parcel: Parcel) => parcel.to === 'rows' ? null : parcel.number
  function lose(parcel: Parcel): void {
    const number = numberOf(parcel)
    if (number === null) parcels.push(parcel)
    else if (parcel.tab.life === parcel.life) tell(parcel.tab, { is: 'failed', number, problem: { kind: 'away', message: 'away' } })
  }
  function onParcel(run: (parcel: Parcel) => void): void {
    if (parcels.length === 0) return
    const parcel = pick(parcels)
    parcels = parcels.filter(p => p !== parcel)
    run(parcel)
  }
  function fire(tab: Tab): void {
    if (tab.timers === 0 || !tab.isOpen) return
    tab.timers--
    tell(tab, { is: 'again' })
  }

  function wanted(tab: Tab): GearAct | null {
    const shown = rowsAfter('speaker', tab.rows, shownActs(tab.window).map(k => k.act))
    const roll = chance()
    if (shown.length === 0 || roll < 0.08) {
      const named = (): NewModel => ({ id: uuid(seed, models++), kind: 'speaker', body: unstatedModel('speaker', `m${models}`) as Model })
      return { do: 'add', models: Array.from({ length: 1 + Math.floor(chance() * 3) }, named) }
    }
    const row = pick(shown)
    if (roll < 0.2) return { do: 'retire', ids: [row.id], retired: !row.isRetired }
    const at = LIST_KEYS.speaker.indexOf('price')
    // Now and then from what a table of yesterday said.
    return { do: 'set', id: row.id, kind: 'speaker', was: { price: chance() < 0.15 ? 51 : row.values[at] }, to: { price: Math.ceil(chance() * 50) } }
  }
  function edit(tab: Tab): void {
    if (!tab.isOpen) return
    const last = tab.window.waiting.at(-1)
    const act = last && chance() < 0.2 ? takingBack(last.act) : wanted(tab)
    if (!act) return
    const id = nextId()
    made.add(id)
    tell(tab, { is: 'done', kept: { id, by: tab.by, at: clock++, says: act.do, act, refused: null } })
  }
  function decide(tab: Tab): void {
    const [refused] = tab.window.refused
    if (!refused || !tab.isOpen) return
    dismissed.add(refused.id)
    if (refused.act.do !== 'set' || chance() < 0.5) return tell(tab, { is: 'dismissed', id: refused.id })
    const newId = nextId()
    made.add(newId)
    tell(tab, { is: 'forced', id: refused.id, newId, at: clock++, now: { ...server.models.get(refused.act.id)?.body } })
  }

  for (const tab of tabs) open(tab)
  for (let turn = 40 + Math.floor(chance() * 100); turn > 0; turn--) {
    const tab = pick(tabs)
    const roll = chance()
    if (roll < 0.36) edit(tab)
    else if (roll < 0.68) onParcel(deliver)
    else if (roll < 0.75) onParcel(lose)
    else if (roll < 0.79) onParcel((parcel) => {
      if (parcel.to === 'server') deliver({ ...parcel, life: -1 })
      parcels.push(parcel)
    })
    else if (roll < 0.86) fire(tab)
    else if (roll < 0.90) open(tab)
    else if (roll < 0.92) close(tab)
    else if (roll < 0.98) tabs.forEach(decide)
    else if (tab.isOpen) look(tab)
  }

  for (const tab of tabs) if (!tab.isOpen) open(tab)
  for (let round = 0; round < 3; round++) {
    for (const tab of tabs) {
      look(tab)
      parcels.push({ tab, life: tab.life, to: 'rows' })
    }
    for (let turn = 0; turn < 2000 && (parcels.length > 0 || tabs.some(t => t.timers > 0)); turn++) {
      onParcel(deliver)
      tabs.forEach(fire)
    }
  }
  const there = server.rows()
  const hanging = tabs.flatMap(({ by, window, rows }) => {
    if (window.waiting.length > 0 || window.asking) return [`${by} hangs with ${window.waiting.length} waiting`]
    return same(rowsAfter('speaker', rows, shownActs(window).map(k => k.act)), there) ? [] : [`${by} shows another library than the server has`]
  })
  const waiting = keptBy(new Set())
  const refused = new Set(waiting.filter(k => k.refused && k.refused.message.length > 5).map(k => k.id))
  const unseen = tabs.flatMap(t => t.window.refused).filter(k => !refused.has(k.id) && !dismissed.has(k.id))
  const trouble = [
    ...hanging,
    ...[...made].filter(id => !server.taken.has(id) && !refused.has(id) && !dismissed.has(id)).map(id => `${id} is neither on the server nor in front of anybody`),
    ...[...made].filter(id => server.taken.has(id) && refused.has(id)).map(id => `${id} is on the server and said to be refused`),
    ...unseen.map(({ id }) => `${id} was refused, and would be forgotten by a reload`),
    ...waiting.filter(k => !k.refused).map(k => `${k.id} waits for ever`),
    ...storage.has(keptActKey('damaged')) ? [] : ['what could not be read was dropped'],
  ]
  return { made: made.size, refused: refused.size, dismissed: dismissed.size, trouble: trouble[0] ?? null }
}
const uuid = (seed: number, k: number) => `${String(seed % 1e8).padStart(8, '0')}-0000-4000-8000-${String(k).padStart(12, '0')}`
