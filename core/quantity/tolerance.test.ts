import { expect, test } from '@jest/globals'
import { areEqualShares, exceeds, fallsShort, isSameLoad, isUnderFloor } from './tolerance'

// Common practice, no source: what is near enough to be one thing.
test.each<[string, boolean, boolean]>([
  ['8 Ω and 8.03 Ω are one load', isSameLoad(8.03, 8), true], ['8 Ω and 7.97 Ω too', isSameLoad(7.97, 8), true], ['8 Ω and 8.05 Ω are two', isSameLoad(8.05, 8), false],
  ['3.985 Ω is not under 4 Ω', isUnderFloor(3.985, 4), false], ['3.97 Ω is', isUnderFloor(3.97, 4), true], ['4.1 Ω is not', isUnderFloor(4.1, 4), false],
  ['rounding is not more', exceeds(250 * (1 + 1e-9), 250), false], ['a milliwatt of a hundred is', exceeds(100.001, 100), true],
  ['rounding is not less', fallsShort(4 * (1 - 1e-9), 4), false], ['a hundredth of an ohm is', fallsShort(3.99, 4), true],
  ['alike within a fiftieth of the largest', areEqualShares([0.5, 0.491]), true], ['not beyond', areEqualShares([0.5, 0.489]), false], ['none takes anything', areEqualShares([0, 0]), true],
])('%s', (_, is, should) => expect(is).toBe(should))
