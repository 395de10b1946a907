import type { TestKind } from '#core/trace/next/test'

/** Of the tests that are told those that stand beside the chosen one, by number: the next best, and of each other kind the best. */
export function otherTests(tests: readonly { kind: TestKind }[], chosen: number): number[] {
  const seen = new Set([tests[chosen]?.kind])
  const others: number[] = []
  tests.forEach(({ kind }, k) => {
    if (k !== chosen && (others.length === 0 || !seen.has(kind))) others.push(k)
    if (k !== chosen) seen.add(kind)
  })
  return others
}
