import type { Cable } from '#core/quantity/cable'
import type { Chance } from '#core/quantity/seeded'
import type { Child, CurvePoint, Load, Member, SingleLoad, TapMeans, Through, WiringNode } from '#core/network/tree'

/** Trees for tests and benchmarks. The same seed gives the same tree. */

export { seeded, type Chance } from '#core/quantity/seeded'

const between = (chance: Chance, least: number, most: number) => least + chance() * (most - least)
const oneOf = <T>(chance: Chance, list: readonly T[]): T => list[Math.floor(chance() * list.length)]!

export function randomMotional(chance: Chance): Extract<SingleLoad, { kind: 'motional' }> {
  const nominalOhm = oneOf(chance, [4, 8, 16])
  return {
    kind: 'motional', nominalOhm, reOhm: nominalOhm * between(chance, 0.7, 0.9), leH: between(chance, 0, 2e-3),
    fsHz: between(chance, 30, 800), qms: between(chance, 1, 10), qes: between(chance, 0.2, 2),
  }
}

/** Two to four coils or drivers behind one pair of terminals. */
function randomMembers(chance: Chance): Load {
  const one = (): Member => chance() < 0.5 ? { kind: 'nominal', nominalOhm: between(chance, 2, 16) } : randomMotional(chance)
  return { kind: 'members', joined: oneOf(chance, ['series', 'parallel'] as const), members: Array.from({ length: 2 + Math.floor(chance() * 3) }, one) }
}

/** A measured curve: not over the whole of the hearing range, its phase on either side, now and then without. */
export function randomCurve(chance: Chance): Extract<SingleLoad, { kind: 'curve' }> {
  const nominalOhm = oneOf(chance, [4, 8, 16])
  const [fromHz, step, hasPhase] = [between(chance, 15, 200), between(chance, 1.02, 1.6), chance() < 0.8]
  const points = Array.from({ length: 3 + Math.floor(chance() * 20) }, (_, k): CurvePoint => [fromHz * step ** k, nominalOhm * between(chance, 0.7,
    6), hasPhase ? between(chance, -70, 70) : null])
  return { kind: 'curve', nominalOhm, reOhm: null, points }
}

/** A curve of so many points from 20 Hz to 20 kHz on frequencies of its own, each point a little off its neighbours: the worst for who looks at each. */
export function jaggedCurve(chance: Chance, points: number): Extract<SingleLoad, { kind: 'curve' }> {
  const hz = [20, ...Array.from({ length: points - 2 }, () => 20 * 1000 ** chance()).sort((a, b) => a - b), 20_000]
  const point = (f: number): CurvePoint => [f, 6 + 10 * chance() * Math.exp(-(Math.log(f / 60) ** 2)) + chance(), 20 * chance()]
  return { kind: 'curve', nominalOhm: 8, reOhm: null, points: hz.map(point) }
}

/** A cabinet at one of its positions, or one coil of a unit. */
function randomOfParts(chance: Chance): Load {
  const whole = randomMembers(chance) as Extract<Load, { kind: 'members' }>
  if (chance() < 0.5) return { kind: 'coil', unit: 'sub', of: whole.members.length, coil: whole.members[0]! }
  const other = { jack: 'B', switchTo: '', plays: 'half' as const, load: whole.members[0]! }
  return { kind: 'cabinet', at: Math.floor(chance() * 2), positions: [{ jack: 'A', switchTo: '', plays: 'all', load: whole }, other] }
}

function randomLoad(chance: Chance): Load {
  const pick = chance()
  if (pick < 0.1) return randomMembers(chance)
  if (pick < 0.2) return randomCurve(chance)
  if (pick < 0.25) return randomOfParts(chance)
  if (pick < 0.5) return randomMotional(chance)
  if (pick < 0.8) return { kind: 'nominal', nominalOhm: between(chance, 2, 600) }
  return { kind: 'tap', tapW: oneOf(chance, [1.25, 2.5, 5, 10, 20]), ratedV: oneOf(chance, [70.71, 100]), tapsW: [], ...randomLoss(chance) }
}

const randomLoss = (chance: Chance) => ({
  insertionDb: chance() < 0.5 ? null : between(chance, 0, 3), tapMeans: oneOf<TapMeans | null>(chance, [null, 'line-gives', 'driver-gets']),
})

function randomThrough(chance: Chance): Through {
  if (chance() < 0.3) {
    return chance() < 0.5
      ? { kind: 'capacitor', capacitanceF: between(chance, 2e-6, 400e-6) }
      : { kind: 'inductor', inductanceH: between(chance, 1e-4, 8e-3), resistanceOhm: oneOf(chance, [null, 0.3, 1.2]) }
  }
  if (chance() < 0.4) return { kind: 'transformer', tapW: oneOf(chance, [10, 60, 200]), ratedV: oneOf(chance, [70.71, 100]), secondaryOhm: oneOf(chance, [4, 8, 16]), ...randomLoss(chance) }
  const setDb = oneOf(chance, [null, 0, 3, 6, 12, 30])
  return { kind: 'control', setDb, ratingW: oneOf(chance, [null, 10, 35, 100]), lineV: oneOf(chance, [null, 70.71, 100]), insertionDb: randomLoss(chance).insertionDb }
}

function randomLead(chance: Chance): { cable: Cable, lengthM: number } | null {
  if (chance() < 0.3) return null
  return { cable: oneOf<Cable>(chance, [{ awg: 16 }, { awg: 18 }, { areaMm2: 0.75 }, { areaMm2: 2.5 }]), lengthM: between(chance, 0.2, 60) }
}

/** A tree of exactly `speakers` speakers with every kind of node mixed, a part of its groups (`throughs`, 0 to 1) behind controls and transformers. */
export function randomTree(chance: Chance, speakers: number, throughs = 0): Child<WiringNode> {
  let count = 0
  const grow = (size: number, depth: number): Child<WiringNode> => {
    const id = `s${++count}`
    if (size === 1 || depth > 12) {
      if (size === 1) return { lead: randomLead(chance), node: { kind: 'speaker', id, load: randomLoad(chance) } }
    }
    const parts = Math.min(size, 2 + Math.floor(chance() * (size > 40 ? 12 : 5)))
    const sizes = new Array<number>(parts).fill(1)
    for (let k = 0; k < size - parts; k++) sizes[Math.floor(chance() * parts)]!++
    return {
      lead: randomLead(chance),
      node: {
        kind: oneOf(chance, ['series', 'chain', 'star'] as const), id, children: sizes.map(s => grow(s, depth + 1)),
        ...(throughs > 0 && chance() < throughs ? { through: randomThrough(chance) } : {}),
      },
    }
  }
  return grow(speakers, 0)
}

/** A chain of equal drops: the ladder of the cable tables. */
export function ladder(drops: number, load: Load, cable: Cable, lengthM: number): Child<WiringNode> {
  return {
    lead: null,
    node: { kind: 'chain', id: 'line', children: Array.from({ length: drops }, (_, k) => ({ lead: { cable, lengthM }, node: { kind: 'speaker' as const, id: `s${k + 1}`, load } })) },
  }
}

/** A chain of motional drops, no two alike. */
export function motionalLadder(chance: Chance, drops: number): Child<WiringNode> {
  return {
    lead: null,
    node: {
      kind: 'chain', id: 'line',
      children: Array.from({ length: drops }, (_, k) => ({
        lead: { cable: { awg: 16 }, lengthM: between(chance, 2, 12) },
        node: { kind: 'speaker' as const, id: `s${k + 1}`, load: randomMotional(chance) },
      })),
    },
  }
}
