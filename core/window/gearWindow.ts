import type { GearAnswer } from '#core/gear/protocol'
import type { KeptAct } from './keptAct'
import { retryMs } from './request'
import type { Failure } from './state'

/**
 * A window's side of the library's protocol, as a state machine: what is done is kept, shown at once and sent in order, each once. Smaller
 * than a job's (window.ts): the library is one, and its acts name what they are about.
 */

export interface GearWindow {
  /** In the order done. The first is on its way while something is asked. */
  readonly waiting: readonly KeptAct[]
  /** On the server, and not yet in what this window has read of it. */
  readonly arrived: readonly { number: number, kept: KeptAct }[]
  readonly refused: readonly KeptAct[]
  readonly isAway: boolean
  readonly asking: { number: number, id: string } | null
  readonly asked: number
  readonly failures: number
  /** Acts that have arrived so far. */
  readonly arrivals: number
}

export type GearEvent
  = | { is: 'done', kept: KeptAct }
    /**
     * Acts of earlier windows that waited on this device. `refused`: what this window showed as refused when it began to look: what of it lies
     * there no more was taken, or left so, in another window that had taken it over as well.
     */
    | { is: 'found', kept: readonly KeptAct[], refused: readonly string[] }
    | { is: 'answered', number: number, answer: GearAnswer }
    | { is: 'failed', number: number, problem: Failure }
    | { is: 'again' }
    /** What was read of the library has all that had arrived when the reading began. */
    | { is: 'read', arrivals: number }
    | { is: 'dismissed', id: string }
    /** A refused change of fields, made from what stands in them now. */
    | { is: 'forced', id: string, newId: string, at: number, now: Readonly<Record<string, unknown>> }

export type GearMessage
  = | { do: 'keep', kept: KeptAct[] }
    | { do: 'let go', ids: string[] }
    | { do: 'send', number: number, kept: KeptAct }
    | { do: 'wait', ms: number }
    /** Read anew what is shown of the library. */
    | { do: 'read' }

export interface GearStep { state: GearWindow, messages: GearMessage[] }

export const NOTHING_DONE: GearWindow = { waiting: [], arrived: [], refused: [], isAway: false, asking: null, asked: 0, failures: 0, arrivals: 0 }

/** What is shown beyond what was read, in order. */
export const shownActs = ({ arrived, waiting }: GearWindow): KeptAct[] => [...arrived.map(a => a.kept), ...waiting]

/** One event, one new state, and what is to be done about it. Pure. */
export function gearStep(state: GearWindow, event: GearEvent): GearStep {
  switch (event.is) {
    case 'done': return onward({ ...state, waiting: [...state.waiting, event.kept] }, [{ do: 'keep', kept: [event.kept] }])
    case 'found': return found(withoutGone(state, event), event.kept)
    case 'answered': return state.asking?.number === event.number ? answered(state, event.answer) : still(state)
    case 'failed': return state.asking?.number === event.number ? failed(state, event.problem) : still(state)
    case 'again': return onward(state)
    case 'read': return still({ ...state, arrived: state.arrived.filter(a => a.number > event.arrivals) })
    case 'dismissed': return { state: without(state, event.id), messages: [{ do: 'let go', ids: [event.id] }] }
    case 'forced': return forced(state, event)
  }
}

const still = (state: GearWindow): GearStep => ({ state, messages: [] })
const without = (state: GearWindow, id: string): GearWindow => ({ ...state, refused: state.refused.filter(k => k.id !== id) })

function onward(state: GearWindow, messages: GearMessage[] = []): GearStep {
  const [kept] = state.waiting
  if (state.asking || !kept) return { state, messages }
  const number = state.asked + 1
  return { state: { ...state, asked: number, asking: { number, id: kept.id } }, messages: [...messages, { do: 'send', number, kept }] }
}

function withoutGone(state: GearWindow, { kept, refused }: Extract<GearEvent, { is: 'found' }>): GearWindow {
  const there = new Set(kept.map(k => k.id))
  const gone = new Set(refused.filter(id => !there.has(id)))
  return gone.size === 0 ? state : { ...state, refused: state.refused.filter(k => !gone.has(k.id)) }
}

function found(state: GearWindow, kept: readonly KeptAct[]): GearStep {
  const here = new Set([...shownActs(state), ...state.refused].map(k => k.id))
  const fresh = kept.filter(k => !here.has(k.id))
  if (fresh.length === 0) return still(state)
  // What is on its way stays first; the rest goes in the order in which it was done.
  const first = state.waiting.slice(0, state.asking ? 1 : 0)
  const rest = [...state.waiting.slice(first.length), ...fresh.filter(k => !k.refused)].sort((a, b) => a.at - b.at)
  return onward({ ...state, waiting: [...first, ...rest], refused: [...state.refused, ...fresh.filter(k => k.refused)] })
}

function answered(state: GearWindow, answer: GearAnswer): GearStep {
  const [kept, ...waiting] = state.waiting as [KeptAct, ...KeptAct[]]
  const reached = { ...state, asking: null, isAway: false, failures: 0, waiting }
  if (answer.status === 'refused') return refuse(reached, kept, answer)
  const arrivals = state.arrivals + 1
  return onward({ ...reached, arrivals, arrived: [...state.arrived, { number: arrivals, kept }] }, [{ do: 'let go', ids: [kept.id] }, { do: 'read' }])
}

function failed(state: GearWindow, { kind, message }: Failure): GearStep {
  const [kept, ...waiting] = state.waiting as [KeptAct, ...KeptAct[]]
  // One that the server cannot read must not hold up the others. A server of before knows no acts at all: it will be a newer one.
  if (kind === 'unreadable') return refuse({ ...state, asking: null, waiting }, kept, { message, code: null })
  return {
    state: { ...state, asking: null, isAway: true, failures: state.failures + 1 },
    messages: [{ do: 'wait', ms: retryMs(state.failures) }],
  }
}

function refuse(state: GearWindow, kept: KeptAct, { message, code }: { message: string, code: string | null }): GearStep {
  const refused = { ...kept, refused: { message, code } }
  return onward({ ...state, refused: [...state.refused, refused] }, [{ do: 'keep', kept: [refused] }, { do: 'read' }])
}

function forced(state: GearWindow, { id, newId, at, now }: Extract<GearEvent, { is: 'forced' }>): GearStep {
  const refused = state.refused.find(k => k.id === id)
  if (refused?.act.do !== 'set') return still(state)
  const was = Object.fromEntries(Object.keys(refused.act.to).map(field => [field, now[field]]))
  const kept: KeptAct = { ...refused, id: newId, at, refused: null, act: { ...refused.act, was } }
  // It is kept under its new name before the old one is let go.
  const { state: next, messages } = gearStep(without(state, id), { is: 'done', kept })
  return { state: next, messages: [...messages, { do: 'let go', ids: [id] }] }
}
