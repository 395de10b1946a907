import type { Network } from '#core/search/wirings/network'

/** A small drawing of a network: parts in series side by side, in parallel one above the other. Pure, so that it can be tested. */
export interface NetworkDrawing { width: number, height: number, boxes: { x: number, y: number, unit: number }[], wires: string }

export const BOX = { width: 34, height: 20, gapX: 10, gapY: 7, bus: 7, lead: 5 } as const

interface Size { width: number, height: number }
function sizeOf(n: Network): Size {
  if (n.kind === 'one') return { width: BOX.width, height: BOX.height }
  const sizes = n.parts.map(sizeOf)
  const sum = (of: (s: Size) => number) => sizes.reduce((all, s) => all + of(s), 0)
  return n.kind === 'series'
    ? { width: sum(s => s.width) + BOX.gapX * (sizes.length - 1), height: Math.max(...sizes.map(s => s.height)) }
    : { width: Math.max(...sizes.map(s => s.width)) + 2 * (BOX.bus + BOX.lead), height: sum(s => s.height) + BOX.gapY * (sizes.length - 1) }
}

export function drawNetwork(network: Network): NetworkDrawing {
  const boxes: NetworkDrawing['boxes'] = []
  let wires = ''
  const wire = (x1: number, y1: number, x2: number, y2: number) => { if (x1 !== x2 || y1 !== y2) wires += `M${x1} ${y1}L${x2} ${y2}` }
  /** Draws it about a middle line, between two ends. */
  const draw = (n: Network, left: number, right: number, middle: number): void => {
    if (n.kind === 'one') {
      const x = (left + right - BOX.width) / 2
      wire(left, middle, x, middle)
      wire(x + BOX.width, middle, right, middle)
      boxes.push({ x, y: middle - BOX.height / 2, unit: n.unit })
      return
    }
    const sizes = n.parts.map(sizeOf)
    if (n.kind === 'series') {
      const spare = (right - left - sizeOf(n).width) / n.parts.length
      let x = left
      n.parts.forEach((part, k) => {
        const to = x + sizes[k]!.width + spare
        draw(part, x, to, middle)
        if (k < n.parts.length - 1) wire(to, middle, to + BOX.gapX, middle)
        x = to + BOX.gapX
      })
      return
    }
    const { height } = sizeOf(n)
    const middles: number[] = []
    let y = middle - height / 2
    n.parts.forEach((part, k) => {
      middles.push(y + sizes[k]!.height / 2)
      draw(part, left + BOX.bus + BOX.lead, right - BOX.bus - BOX.lead, middles[k]!)
      y += sizes[k]!.height + BOX.gapY
    })
    for (const [x, end, inner] of [[left + BOX.bus, left, BOX.lead], [right - BOX.bus, right, -BOX.lead]] as const) {
      wire(x, middles[0]!, x, middles.at(-1)!)
      wire(end, middle, x, middle)
      for (const m of middles) wire(x, m, x + inner, m)
    }
  }
  const { width, height } = sizeOf(network)
  draw(network, 0, width, height / 2)
  return { width, height, boxes, wires }
}
