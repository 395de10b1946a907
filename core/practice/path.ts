import { faultAt, type Fault } from '#core/faults/fault'
import type { Reading } from '#core/job/schema'
import { mendKey } from '#core/trace/next/minutes'
import type { TestAt } from '#core/trace/next/test'
import type { Suspect } from '#core/trace/rank'
import { beginPlay, stepped, type Act, type Play } from './game'
import { ranked, type Ranked } from './possible'
import { readingOf } from './reads'
import { isIt, type Rig } from './rig'

/** A play looked back on: what was still possible after each act, what another test would have told, and where the lead was lost. */

export interface PathStep {
  /** Minutes gone after it. */
  atMin: number
  /** Chance, after it, of what is hidden still. 1 where nothing is. */
  truth: number
  /** Likeliest after it. */
  suspects: readonly Suspect[]
  /** Of a test: what it told before it was read, bits, and minutes that it saved in the mean; null: it was none, or cannot be weighed. */
  told: { bits: number, saves: number } | null
  /** What would have told most; null: it was that, or nothing saves any more. */
  better: { test: TestAt, minutes: number, bits: number, saves: number } | null
  /** Minutes given away, in the mean, against the best that could be done there. */
  lostMin: number
}

/** As many are kept of what is possible. */
const TOLD = 5
/** A lead is lost from here on, minutes: less than this nobody can see beforehand. */
const LOST_MIN = 3

/** Yields after each act, since each is a ranking of its own: some seconds of forty speakers. */
export function* pathOf(rig: Rig, acts: readonly Act[]): Generator<number, PathStep[]> {
  let play = beginPlay(rig)
  let readings: Reading[] = []
  const opened = new Set<string>()
  let now = ranked(rig, readings)
  let atMin = 0
  const path: PathStep[] = []
  for (const [k, act] of acts.entries()) {
    const before = play
    play = stepped(play, act)
    const step = play.steps.at(-1)
    if (play === before || !step) continue
    atMin += step.minutes
    const asked = act.do === 'test' && !step.isDeaf && step.read.length > 0 ? judged(now, before, act) : null
    const lostMin = asked ? asked.lostMin : act.do === 'name' && step.mended === null ? lostByOpening(now.suspects, act, step.minutes) : step.isDeaf || step.isOverRange || step.mistake === 'live-line' ? step.minutes : 0
    if (act.do === 'name') opened.add(mendKey([faultAt(act.kind, act.nodeId)]))
    // What is put right is another line: it is read anew.
    if (step.mended) readings = []
    readings = [...readings, ...step.read.map((r, n) => readingOf(rig, readings.length + n, r, atOf(k)))]
    if (step.mended || step.read.length > 0) now = ranked(play.rig, readings, opened)
    else if (act.do === 'name') now = now.without(opened)
    path.push({ atMin, truth: truthOf(now.suspects, play.rig.faults), suspects: now.suspects.slice(0, TOLD), told: asked?.told ?? null,
      better: asked?.better ?? null, lostMin })
    yield (k + 1) / acts.length
  }
  return path
}

/** Later acts are later readings: of one place the last one counts. */
const atOf = (k: number): string => `2026-05-04T09:${String(Math.floor(k / 60)).padStart(2, '0')}:${String(k % 60).padStart(2, '0')}Z`

function judged({ ask }: Ranked, before: Play, { kind, nodeId, besideId }: TestAt): Pick<PathStep, 'told' | 'better' | 'lostMin'> {
  const { tests, besides, isMendNext } = ask({ atId: before.atId, isUp: before.isUp, isOn: before.isOn, without: before.rig.exercise.without ?? [] }, { kind,
    nodeId,
    besideId }, before.isHeadRead)
  const best = isMendNext ? undefined : tests[0]
  const told = besides && { bits: besides.bits, saves: besides.saves }
  // The head is read before anything is switched on: that opens the way to ears, and is no lead lost.
  if (kind === 'line-impedance' && !before.isHeadRead) return { told, better: null, lostMin: 0 }
  if (!best || (best.kind === kind && best.nodeId === nodeId && best.besideId === besideId)) return { told, better: null, lostMin: 0 }
  return { told, better: { test: { kind: best.kind, nodeId: best.nodeId, besideId: best.besideId }, minutes: best.minutes, bits: best.bits,
    saves: best.saves }, lostMin: Math.max(0, best.saves - (told?.saves ?? -(besides?.minutes ?? 0))) }
}

/** Of minutes at a place that was right: none where it was the likeliest, all where nothing spoke for it. */
function lostByOpening(suspects: readonly Suspect[], { kind, nodeId }: Pick<Fault, 'kind' | 'nodeId'>, minutes: number): number {
  const key = mendKey([faultAt(kind, nodeId)])
  const byKey = new Map<string, number>()
  for (const s of suspects) for (const f of s.faults) byKey.set(mendKey([f]), (byKey.get(mendKey([f])) ?? 0) + s.probability)
  const most = Math.max(0, ...byKey.values())
  return most > 0 ? minutes * (1 - (byKey.get(key) ?? 0) / most) : 0
}

/** All that is said of a suspect is hidden, and something is. */
function truthOf(suspects: readonly Suspect[], hidden: readonly Fault[]): number {
  if (hidden.length === 0) return 1
  const isOne = (f: Fault) => hidden.some(h => isIt([f], [h]))
  return suspects.reduce((sum, s) => s.faults.length > 0 && s.faults.every(isOne) ? sum + s.probability : sum, 0)
}

/** Where the lead was lost: the act that gave most away; null: nothing worth speaking of. */
export function lostAt(path: readonly PathStep[]): number | null {
  const most = Math.max(0, ...path.map(p => p.lostMin))
  return most < LOST_MIN ? null : path.findIndex(p => p.lostMin === most)
}
