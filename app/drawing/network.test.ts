import { expect, test } from '@jest/globals'
import { networkOf, Networks } from '#core/search/wirings/enumerate'
import type { Network } from '#core/search/wirings/network'
import { BOX, drawNetwork } from './network'

const one: Network = { kind: 'one', unit: 0 }
test('two in series stand side by side, two in parallel one above the other, with a wire on either side', () => {
  const series = drawNetwork({ kind: 'series', parts: [one, one] })
  expect([series.width, series.height, series.boxes.map(b => [b.x, b.y]), series.wires]).toEqual([78, 20, [[0, 0], [44, 0]], 'M34 10L44 10'])
  const parallel = drawNetwork({ kind: 'parallel', parts: [one, one] })
  expect([parallel.width, parallel.height, parallel.boxes.map(b => [b.x, b.y])]).toEqual([58, 47, [[12, 0], [12, 27]]])
  expect(parallel.wires).toBe('M7 10L7 37M0 23.5L7 23.5M7 10L12 10M7 37L12 37M51 10L51 37M58 23.5L51 23.5M51 10L46 10M51 37L46 37')
})

test('of every network of seven: boxes lie inside and apart, and the wires join all of them between both ends', () => {
  new Networks([{ ohm: 8, count: 7, weight: 1 }]).forEach((kind, parts) => {
    const { width, height, boxes, wires } = drawNetwork(networkOf(kind, parts))
    expect(boxes).toHaveLength(7)
    for (const [k, a] of boxes.entries()) {
      expect(a.x >= 0 && a.y >= 0 && a.x + BOX.width <= width + 1e-9 && a.y + BOX.height <= height + 1e-9).toBe(true)
      for (const b of boxes.slice(k + 1)) expect(Math.abs(a.x - b.x) >= BOX.width || Math.abs(a.y - b.y) >= BOX.height).toBe(true)
    }
    // Points that touch are one; boxes join theirs. Then the left end reaches the right one, and every box hangs on it.
    const joined = new Map<string, string>()
    const root = (p: string): string => joined.has(p) && joined.get(p) !== p ? root(joined.get(p)!) : p
    const join = (a: string, b: string) => joined.set(root(a), root(b))
    const key = (x: number, y: number) => `${x.toFixed(3)} ${y.toFixed(3)}`
    const lines = [...wires.matchAll(/M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)/g)].map(m => m.slice(1).map(Number) as [number, number, number, number])
    const ends: (readonly [number, number])[] = [
      ...lines.flatMap(([a, b, c, d]) => [[a, b], [c, d]] as const), [0, height / 2], [width, height / 2],
      ...boxes.flatMap(b => [[b.x, b.y + BOX.height / 2], [b.x + BOX.width, b.y + BOX.height / 2]] as const),
    ]
    for (const [a, b, c, d] of lines) for (const [x, y] of ends) {
      const isOn = x >= Math.min(a, c) - 1e-6 && x <= Math.max(a, c) + 1e-6 && y >= Math.min(b, d) - 1e-6 && y <= Math.max(b, d) + 1e-6
      if (isOn) join(key(x, y), key(a, b))
    }
    for (const b of boxes) join(key(b.x, b.y + BOX.height / 2), key(b.x + BOX.width, b.y + BOX.height / 2))
    expect(new Set(ends.map(([x, y]) => root(key(x, y)))).size).toBe(1)
  })
})
