import { leadOhm } from '#core/network/cable'
import { asCurve, passingOf, type Element, type View } from '#core/network/element'
import { asWired, isGroup, membersOf, unitOf, type Child, type SingleLoad, type Through, type WiringNode } from '#core/network/tree'

export interface SpiceOptions {
  headV: number
  fromHz: number
  toHz: number
  /** Frequencies to a decade, the first at `fromHz`; with `toHz` equal to it, that one alone. */
  perDecade: number
  view?: View
}

export interface SpiceNetlist {
  text: string
  /** Node pair across every speaker, by its id. */
  nodes: Map<string, { plus: string, minus: string }>
}

/**
 * The wiring as a netlist for a circuit simulator of the SPICE family: one AC source V1 at the head, the leads as
 * resistors, a motional speaker as Re, Le and a parallel Res–Lces–Cmes. Node 0 is the return conductor of the head.
 * A control or a transformer is an ideal ratio (E and F) behind its series resistance. A measured curve is a resistance and an inductance
 * that hang on `hertz`, between its points straight over the logarithm of the frequency as in the solver; a negative phase makes the inductance negative.
 * Leads without resistance join their ends: a zero resistor is an error in most simulators.
 * Source of the equivalent circuit: Small, JAES 1972.
 */
export function writeSpice(root: Child<WiringNode>, title: string, { headV, fromHz, toHz, perDecade, view = asCurve }: SpiceOptions): SpiceNetlist {
  const lines: string[] = [`* ${title.replace(/\s+/g, ' ')}`, `V1 n1 0 DC 0 AC ${headV}`]
  const nodes: SpiceNetlist['nodes'] = new Map()
  let nodeCount = 1
  let partCount = 0
  const newNode = () => `n${++nodeCount}`
  const part = (kind: string, a: string, b: string, value: number) => lines.push(`${kind}${++partCount} ${a} ${b} ${exact(value)}`)

  /** Runs a lead from a node; the node at its far end. */
  const lead = (from: string, ohm: number): string => {
    if (ohm === 0) return from
    const to = newNode()
    part('R', from, to, ohm)
    return to
  }
  const element = (e: Element, plus: string, minus: string) => {
    if (e.kind === 'open') return
    if (e.kind === 'resistor') {
      part('R', plus, minus, e.ohm)
      return
    }
    const a = newNode()
    if (e.kind === 'curve') {
      const [re, im] = onHertz(e)
      lines.push(`R${++partCount} ${plus} ${a} r='${re}'`, `L${++partCount} ${a} ${minus} l='${im}'`)
      return
    }
    part('R', plus, a, e.reOhm)
    const b = e.leH > 0 ? newNode() : a
    if (e.leH > 0) part('L', a, b, e.leH)
    const omegaS = 2 * Math.PI * e.fsHz
    part('R', b, minus, e.resOhm)
    part('L', b, minus, e.resOhm / (omegaS * e.qms))
    part('C', b, minus, e.qms / (omegaS * e.resOhm))
  }
  /** An ideal ratio behind a resistance; the node that what hangs behind it is fed from. Off: its own return, so that nothing floats. */
  const through = (t: Through, plus: string, minus: string): string => {
    const { ratio, seriesOhm, seriesH, elastance } = passingOf(t)
    if (ratio === 0) return minus
    let input = lead(plus, seriesOhm)
    const inSeries = (kind: string, value: number) => {
      const to = newNode()
      part(kind, input, to, value)
      input = to
    }
    if (seriesH > 0) inSeries('L', seriesH)
    if (elastance > 0) inSeries('C', 1 / elastance)
    if (ratio === 1) return input
    const [output, fed] = [newNode(), newNode()]
    const k = ++partCount
    lines.push(`E${k} ${output} ${minus} ${input} ${minus} ${exact(ratio)}`, `Vt${k} ${output} ${fed} DC 0 AC 0`, `F${k} ${input} ${minus} Vt${k} ${exact(ratio)}`)
    return fed
  }
  const place = (node: WiringNode, at: string, minus: string): void => {
    const plus = isGroup(node) && node.through ? through(node.through, at, minus) : at
    if (isGroup(node)) {
      if (node.kind === 'series') {
        let from = plus
        node.children.forEach((child, k) => {
          const start = lead(from, leadOhm(child.lead))
          const end = k === node.children.length - 1 ? minus : newNode()
          place(child.node, start, end)
          from = end
        })
        return
      }
      let from = plus
      for (const child of node.children) {
        const start = lead(from, leadOhm(child.lead))
        place(child.node, start, minus)
        if (node.kind === 'chain') from = start
      }
      return
    }
    const unit = unitOf(node)
    if (unit) place(membersOf(node.id, unit), plus, minus)
    nodes.set(node.id, { plus, minus })
    if (node.kind === 'short') lines.push(`Vs${++partCount} ${plus} ${minus} DC 0 AC 0`)
    else if (node.kind === 'speaker' && !unit) element(view(asWired(node.load) as SingleLoad), plus, minus)
  }

  place(root.node, lead('n1', leadOhm(root.lead)), '0')
  lines.push(toHz > fromHz ? `.ac dec ${perDecade} ${exact(fromHz)} ${exact(toHz)}` : `.ac lin 1 ${exact(fromHz)} ${exact(fromHz)}`)
  return { text: [...lines, '.end', ''].join('\n'), nodes }
}

/** Resistance and inductance of a measured curve, as expressions of the simulator. */
function onHertz({ curve, factor, beyondOhm }: Extract<Element, { kind: 'curve' }>): [re: string, im: string] {
  const over = (values: Float64Array) => `pwl(log(hertz), ${Array.from(values, (value, k) => `${exact(curve.lnHz[k]!)}, ${exact(value)}`).join(', ')})`
  const isBeyond = `(hertz < ${exact(Math.exp(curve.lnHz[0]!) * (1 - 1e-9))} || hertz > ${exact(Math.exp(curve.lnHz.at(-1)!) * (1 + 1e-9))})`
  const [ohm, phase] = [`${exact(factor)} * ${over(curve.ohm)}`, over(curve.phase)]
  return [`${isBeyond} ? ${exact(beyondOhm)} : ${ohm} * cos(${phase})`, `${isBeyond} ? 0 : ${ohm} * sin(${phase}) / (${exact(2 * Math.PI)} * hertz)`]
}

/** Full precision, so that a comparison is limited by arithmetic alone. */
function exact(value: number): string {
  return value.toExponential(16)
}
