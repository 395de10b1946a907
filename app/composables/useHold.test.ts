import { afterEach, beforeEach, expect, jest, test } from '@jest/globals'
import { useHold } from './useHold'

beforeEach(() => { jest.useFakeTimers() })
afterEach(() => { jest.useRealTimers() })

test('after a deed nothing that holds can be pressed for a moment, whichever did it; a second deed holds on', () => {
  const [one, other] = [useHold(), useHold()]
  expect(other.isHeld.value).toBe(false)
  one.hold()
  expect([one.isHeld.value, other.isHeld.value]).toEqual([true, true])
  jest.advanceTimersByTime(600)
  other.hold()
  jest.advanceTimersByTime(600)
  expect(one.isHeld.value).toBe(true)
  jest.advanceTimersByTime(400)
  expect([one.isHeld.value, other.isHeld.value]).toEqual([false, false])
})
