import multicastDns from 'multicast-dns'
import { networkInterfaces } from 'node:os'
import { Failure } from './say.mjs'

/**
 * Answers for a name ending in .local on the firm's network (multicast DNS, RFC 6762), so that the address that phones keep lasts where the machine's number
 * does not. A name that another machine answers to is an error: two would part the phones between them.
 */
const PROBES = 3
const PROBE_MS = 250
const TTL_S = 120

/** Addresses of this machine on its networks. */
const addresses = listen => listen !== '0.0.0.0' && listen !== '::' ? [listen] : Object.values(networkInterfaces()).flatMap(list => list ?? []).filter(i => i.family === 'IPv4' && !i.internal).map(i => i.address)

/** Begins to answer. @returns what ends it */
export async function answerTo(name, listen) {
  const network = multicastDns()
  network.on('error', () => {})
  network.on('warning', () => {})
  const own = () => new Set(addresses(listen))
  const another = []
  const hear = ({ answers }) => {
    for (const { name: its, type, data } of answers) if (type === 'A' && its.toLowerCase() === name && !own().has(data)) another.push(data)
  }
  network.on('response', hear)
  for (let k = 0; k < PROBES && another.length === 0; k++) {
    network.query({ questions: [{ name, type: 'A' }] })
    await new Promise(resolve => setTimeout(resolve, PROBE_MS))
  }
  network.off('response', hear)
  if (another.length > 0) {
    network.destroy()
    throw new Failure(`${name} is the name of another machine on this network (${another[0]}). Choose one of your own: npm start -- --listen ${listen} --name rack-two.local`)
  }
  const records = () => addresses(listen).map(data => ({ name, type: 'A', ttl: TTL_S, flush: true, data }))
  network.on('query', ({ questions }) => {
    if (questions.some(q => q.name.toLowerCase() === name && (q.type === 'A' || q.type === 'ANY'))) network.respond({ answers: records() })
  })
  network.respond({ answers: records() })
  return () => new Promise((resolve) => { network.destroy(() => resolve()) })
}
