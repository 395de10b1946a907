import { z } from 'zod'
import { cutOutChance } from '#core/trace/ears'
import { normalAt } from '#core/trace/chances'
import { amplifierOf, AT_THE_RACK, isOpened, laddersOf, mendKey, mendMinutes, minutesOf, openedAt, standingAfter, SWITCH, type Standing } from '#core/trace/next/minutes'
import { faultAt, type Fault } from '#core/faults/fault'
import { FAULT_KINDS } from '#core/job/sections/repairs/schema'
import { METER_HZ } from '#core/check/readingBands'
import { factsOf, READING_KINDS } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { idText } from '#core/quantity/fields'
import { hashOf } from '#core/quantity/hash'
import { seeded } from '#core/quantity/seeded'
import { isWalk, type TestAt, type TestKind } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'
import { orderIn, RIG_WALKS } from './places'
import { timesIn, type Read } from './reads'
import { isIt, mendedRig, readRig, type Rig } from './rig'

/**
 * A rig as somebody plays it: what was done, one act after the other, and all that follows from it. A play is its acts; whoever has the code and the
 * acts has the whole of it, up to any point.
 */

/** What a meter can be set to. Common practice, no source. */
export const RANGES_OHM = [200, 2000, 20_000] as const
export const TONES_HZ = [1000, 330] as const

const place = idText.nullable()
export const actSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('amplifier'), on: z.boolean() }),
  /** The leads touched together, and taken off what is read from then on. */
  z.strictObject({ do: z.literal('null-leads') }),
  /** The meter set otherwise: its range (null: it finds its own) and the tone of an impedance meter. */
  z.strictObject({ do: z.literal('meter'), rangeOhm: z.literal(RANGES_OHM).nullable(), toneHz: z.literal(TONES_HZ) }),
  z.strictObject({ do: z.literal('test'), kind: z.enum([...READING_KINDS, ...RIG_WALKS]), nodeId: place, besideId: place, /** What a meter by wire said, Ω; null: open. Not given: read by hand. */ wireOhm: z.number().min(0).nullable().optional() }),
  /** "This is it": the place is opened, and what is there is put right. */
  z.strictObject({ do: z.literal('name'), kind: z.enum(FAULT_KINDS), nodeId: place }),
  z.strictObject({ do: z.literal('give-up') }),
])
export type Act = z.infer<typeof actSchema>
export const ACTS = ['amplifier', 'null-leads', 'meter', 'test', 'name', 'give-up'] as const satisfies readonly Act['do'][]

/** What is told at once, and what only the end tells (`not-nulled`: life does not say it either). */
export const MISTAKES = ['live-line', 'opened-live', 'on-unread', 'on-overload', 'right-there', 'named-otherwise', 'not-nulled'] as const
export type Mistake = typeof MISTAKES[number]
/** Those that can hurt somebody, or break something. */
export const RISKS: readonly Mistake[] = ['live-line', 'opened-live', 'on-unread', 'on-overload']

export interface Step {
  act: Act
  minutes: number
  ladders: number
  read: Read[]
  mistake: Mistake | null
  /** Heard with the amplifier off: nothing, and it says nothing. */
  isDeaf: boolean
  /** The meter showed that it is over its range: open, or more. It is no reading. */
  isOverRange: boolean
  /** What was put right by it. */
  mended: Fault | null
}

export interface Play {
  steps: readonly Step[]
  isOn: boolean
  isNulled: boolean
  meter: Pick<Extract<Act, { do: 'meter' }>, 'rangeOhm' | 'toneHz'>
  /** The head was read since something was last put right. */
  isHeadRead: boolean
  atId: string | null
  isUp: boolean
  /** What is hidden still. */
  rig: Rig
  mended: readonly Fault[]
  isGivenUp: boolean
  /** All that was hidden is put right, or it was given up. */
  isOver: boolean
}

export const beginPlay = (rig: Rig): Play =>
  ({
    steps: [], isOn: false, isNulled: false, meter: { rangeOhm: null, toneHz: METER_HZ }, isHeadRead: false, atId: AT_THE_RACK.atId, isUp: AT_THE_RACK.isUp,
    rig, mended: [],
    isGivenUp: false, isOver: false,
  })

export const playOf = (rig: Rig, acts: readonly Act[]): Play => acts.reduce(stepped, beginPlay(rig))

/** Leads of a meter, not nulled. Common practice, no source: 0.1 to 0.5 Ω. */
export const LEADS_OHM = 0.4
const NULLED_MIN = 0.5
const SET_MIN = 0.2
/** A meter that is taken off again. */
const STOPPED_MIN = 1
const CUTS_OUT_FROM = 0.5
/** A joint under a tip, touched anew: so much at the most. Common practice, no source. */
const CONTACT_OHM = 0.06
const CONTACT_PART = 0.004

const STILL = { minutes: 0, ladders: 0, read: [], mistake: null, isDeaf: false, isOverRange: false, mended: null }
const still = (act: Act, more: Partial<Step>): Step => ({ act, ...STILL, ...more })

/** What an act does. After the end nothing does anything. */
export function stepped(play: Play, act: Act): Play {
  if (play.isOver) return play
  const after = (step: Partial<Step>, change: Partial<Play> = {}): Play => ({ ...play, ...change, steps: [...play.steps, still(act, step)] })
  switch (act.do) {
    case 'amplifier': {
      if (act.on === play.isOn) return play
      const isOverload = act.on && cutsOut(play.rig)
      const mistake = !act.on ? null : isOverload ? 'on-overload' : play.isHeadRead ? null : 'on-unread'
      return after({ minutes: SWITCH, mistake }, { isOn: act.on })
    }
    case 'null-leads': return play.isNulled ? play : after({ minutes: NULLED_MIN }, { isNulled: true })
    case 'meter': {
      const { rangeOhm, toneHz } = act
      return rangeOhm === play.meter.rangeOhm && toneHz === play.meter.toneHz ? play : after({ minutes: SET_MIN }, { meter: { rangeOhm, toneHz } })
    }
    case 'give-up': return after({}, { isGivenUp: true, isOver: true })
    case 'name': return named(play, act, after)
    case 'test': return tested(play, act, after)
  }
}

type After = (step: Partial<Step>, change?: Partial<Play>) => Play

const cutsOut = ({ truth, plan }: Rig): boolean => cutOutChance(truth.solved.head, plan.drawn.solved.head) >= CUTS_OUT_FROM

function tested(play: Play, act: Extract<Act, { do: 'test' }>, after: After): Play {
  const { rig, isOn, meter: { rangeOhm, toneHz } } = play
  const test: TestAt = { kind: act.kind, nodeId: act.nodeId, besideId: act.besideId }
  const needsOn = amplifierOf(test.kind) === 'on'
  if (isOn && !needsOn) return after({ minutes: STOPPED_MIN, mistake: 'live-line' })
  const passed = passedOn(play, test.kind)
  const minutes = minutesFor(play, test)
  // Its tool is not at hand: nothing is done.
  if (minutes === null) return play
  const order = orderIn(rig.output)
  const ladders = laddersOf(test, play, order)
  const { atId, isUp } = standingAfter(test, standingFor(play, test), order, passed.at(-1))
  const moved = { atId, isUp }
  if (needsOn && !isOn) return after({ minutes, ladders, isDeaf: true }, moved)
  const read = (readRig(rig, test, passed, toneHz, sinceMend(play)) ?? []).map((r): Read => toneHz === METER_HZ || !isOfTone(r.kind) ? r : { ...r, toneHz }).map(r => act.wireOhm === undefined || test.kind !== 'coil-dcr' ? asTouched(play, r) : { ...r, value: wired(act.wireOhm) })
  // Over its range a meter shows the same for open and for more than it can.
  if (rangeOhm !== null && read.some(r => isInOhms(r.kind) && (r.value.is === 'open' || (r.value.is === 'ohm' && r.value.ohm > rangeOhm)))) {
    return after({ minutes, ladders, isOverRange: true }, moved)
  }
  const isSmall = read.some(r => r.value.is === 'ohm' && r.value.ohm < SMALL_OHM)
  return after({ minutes, ladders, read, mistake: isSmall && !play.isNulled && !needsOn ? 'not-nulled' : null }, {
    ...moved, isHeadRead: play.isHeadRead || test.kind === 'line-impedance',
  })
}
const isOfTone = (kind: Read['kind']) => factsOf(kind).isOfTone
const isInOhms = (kind: Read['kind']) => factsOf(kind).value === 'ohm'
const wired = (ohm: number | null): Read['value'] => ohm === null ? { is: 'open' } : { is: 'ohm', ohm }
/** Below this the leads matter. */
const SMALL_OHM = 20

/** What it costs from here, minutes, with the amplifier as it must be; null: its tool is not at hand. */
export function minutesFor(play: Play, test: TestAt): number | null {
  return minutesOf(test, standingFor(play, test), orderIn(play.rig.output), passedOn(play, test.kind))
}

/** Where whoever plays stands by now, and with what. */
export const standingIn = ({ atId, isUp, isOn, rig }: Play): Standing => ({ atId, isUp, isOn, without: rig.exercise.without ?? [] })
/** The switch is an act of its own: in a test it costs no more. */
const standingFor = (play: Play, { kind }: TestAt): Standing => ({ ...standingIn(play), isOn: amplifierOf(kind) === 'on' })

const sinceMend = ({ steps }: Pick<Play, 'steps'>): Read[] => steps.slice(steps.findLastIndex(s => s.mended !== null) + 1).flatMap(s => s.read)

/** Speakers that a walk notes: those that were not noted so since something was last put right; all, where each was. */
function passedOn({ rig, steps }: Play, kind: TestKind): string[] {
  if (!isWalk(kind)) return []
  const noted = new Set(sinceMend({ steps }).flatMap(r => r.kind === WALKS[kind].reads ? r.nodeId : []))
  const all = speakersOf(rig.output.wiring).map(s => s.id)
  const left = all.filter(id => !noted.has(id))
  return left.length > 0 ? left : all
}

/** Ohms as this meter shows them now: with its leads in them, and touched anew each time. */
function asTouched({ rig, steps, isNulled }: Play, read: Read): Read {
  if (read.value.is !== 'ohm') return read
  const times = timesIn(steps.flatMap(s => s.read), read.kind, read.nodeId)
  const chance = seeded(hashOf(`${rig.code} touched ${read.kind} ${read.nodeId ?? ''} ${times}`))
  const bell = normalAt(Math.min(0.999, Math.max(0.001, chance())))
  // The first is as it is read without hands, so that it is what the tracer reads of the same rig.
  const touched = times === 0 ? read.value.ohm : read.value.ohm * (1 + CONTACT_PART * bell) + CONTACT_OHM * chance()
  return { ...read, value: { is: 'ohm', ohm: Number((touched + (isNulled ? 0 : LEADS_OHM)).toPrecision(3)) } }
}

function named(play: Play, { kind, nodeId }: Extract<Act, { do: 'name' }>, after: After): Play {
  const said = faultAt(kind, nodeId)
  // Whoever opens a line that is on is told, and has it off then: what was done is done.
  const isLive = play.isOn && isOpened([said])
  const minutes = mendMinutes([said]) + (isLive ? SWITCH : 0)
  const near = play.rig.faults.find(f => mendKey([f]) === mendKey([said]))
  const opened = { ...openedAt(nodeId, orderIn(play.rig.output)), isOn: play.isOn && !isLive }
  if (!near) return after({ minutes, mistake: isLive ? 'opened-live' : 'right-there' }, opened)
  const left = play.rig.faults.filter(f => f !== near)
  return after({ minutes, mistake: isLive ? 'opened-live' : isIt([said], [near]) ? null : 'named-otherwise', mended: near }, {
    ...opened, rig: mendedRig(play.rig, left), mended: [...play.mended, near], isOver: left.length === 0, isHeadRead: false,
  })
}

/** What was wrong is put right, and was something else than it was called. */
export const isMisnamed = ({ act, mended }: Step): boolean => act.do === 'name' && mended !== null && !isIt([faultAt(act.kind, act.nodeId)], [mended])

/** What a play came to. */
export interface Sum { minutes: number, tests: number, ladders: number, mistakes: number, risks: number, isFound: boolean, isNamed: boolean }
export function sumOf({ steps, isOver, isGivenUp }: Play): Sum {
  const of = (from: (s: Step) => number) => steps.reduce((sum, s) => sum + from(s), 0)
  const mistakes = steps.flatMap(s => s.mistake ?? [])
  const isFound = isOver && !isGivenUp
  return {
    minutes: of(s => s.minutes), tests: steps.filter(s => s.act.do === 'test').length, ladders: of(s => s.ladders), mistakes: mistakes.length,
    risks: mistakes.filter(m => RISKS.includes(m)).length, isFound, isNamed: isFound && !steps.some(isMisnamed),
  }
}
