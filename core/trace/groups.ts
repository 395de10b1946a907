import { checkKey, type LineProof } from '#core/check/proof'
import type { Output, ReadingKind } from '#core/job/schema'
import { factsOf, isReadAtHead, isTurned } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { ASKED, EVIDENCE, type Chances } from './evidence'
import { isSomethingElse, outcomeOf, planOf, type Outcome } from './outcome'
import type { Suspect } from './rank'
import { riskOf } from './switchOn'

/** Suspects that the readings so far cannot tell apart, with the reading that would. */
export interface SuspectGroup {
  suspects: Suspect[]
  /** Of all of them together. */
  probability: number
  /** The reading that tells most between them; null for one alone, and where no reading would. */
  test: NextTest | null
}
export interface NextTest {
  kind: ReadingKind
  nodeId: string | null
  /** How much it tells, bits: 1 halves the group. */
  bits: number
}

/** Fits that differ less than this explain the readings alike. */
export const ALIKE = 0.25
/** A reading that tells less is no test. */
const LEAST_BITS = 0.05
/** More members than this of one group are not worked through for a test: the likeliest stand for the rest. */
const MOST_TRIED = 24

/** Ranked suspects in groups of those that read alike so far; as drawn and something else stand for themselves. Likeliest group first. */
export function groupSuspects(suspects: readonly Suspect[], output: Output, proof: LineProof): SuspectGroup[] {
  const mayBeOn = riskOf(output, proof, suspects) === null
  const groups: Suspect[][] = []
  for (const suspect of suspects) {
    const group = standsAlone(suspect) ? undefined : groups.find(([first]) => !standsAlone(first!) && Math.abs(first!.fit - suspect.fit) < ALIKE)
    if (group) group.push(suspect)
    else groups.push([suspect])
  }
  return groups
    .map(group => ({
      suspects: group, probability: group.reduce((sum, s) => sum + s.probability, 0), test: group.length > 1 ? nextTest(group, output, proof, mayBeOn) : null,
    }))
    .sort((a, b) => b.probability - a.probability)
}

function standsAlone({ fault }: Suspect): boolean {
  return fault === null || isSomethingElse(fault)
}

/** The reading not taken yet that tells most between these suspects; none with the amplifier on where that must not be. */
export function nextTest(suspects: readonly Suspect[], output: Output, proof: LineProof, mayBeOn: boolean): NextTest | null {
  const plan = planOf(output, proof)
  const tried = suspects.slice(0, MOST_TRIED).map(s => ({ weight: s.probability, outcome: outcomeOf(output, s.fault) }))
  // Which way round is asked for by one way at each place: the one that works there.
  const usual = new Map(proof.asks.flatMap(({ kinds, speaker }) => kinds.length > 1 && speaker ? [[speaker.id, kinds[0]!] as const] : []))
  const isOpen = (kind: ReadingKind, nodeId: string | null) => {
    if (isTurned(kind) && usual.get(nodeId ?? '') !== kind) return false
    const standing = proof.standing.get(checkKey(kind, nodeId))
    return !standing || standing.stale
  }
  const places: (string | null)[] = [null, ...speakersOf(output.wiring).map(s => s.id)]
  const tests = places.flatMap(nodeId => ASKED.flatMap((kind): NextTest[] => {
    const { readsAs } = EVIDENCE[kind]
    if (readsAs === null || (!mayBeOn && factsOf(kind).amplifier === 'on') || isReadAtHead(kind) !== (nodeId === null) || !isOpen(kind, nodeId)) return []
    return [{ kind, nodeId, bits: tells(tried, outcome => readsAs(outcome, plan, nodeId!)) }]
  }))
  const best = tests.reduce<NextTest | null>((most, test) => most === null || test.bits > most.bits + 1e-9 ? test : most, null)
  return best !== null && best.bits >= LEAST_BITS ? best : null
}

/** What an outcome tells, bits: the entropy of what may be read, less what stays open with the fault known. Source: Shannon, mutual information. */
function tells(tried: readonly { weight: number, outcome: Outcome }[], chancesOf: (outcome: Outcome) => Chances): number {
  const total = tried.reduce((sum, t) => sum + t.weight, 0)
  const mixed: Record<string, number> = {}
  let known = 0
  for (const { weight, outcome } of tried) {
    const chances = chancesOf(outcome)
    for (const [read, chance] of Object.entries(chances)) mixed[read] = (mixed[read] ?? 0) + weight / total * (chance ?? 0)
    known += weight / total * entropy(chances)
  }
  return entropy(mixed) - known
}

function entropy(chances: Chances): number {
  return Object.values(chances).reduce<number>((sum, p) => p !== undefined && p > 0 ? sum - p * Math.log2(p) : sum, 0)
}
