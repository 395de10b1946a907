/**
 * What a pair ends in, and what is to be minded there. Common practice, no source: who holds by spring or friction alone is pulled out by a ladder.
 */
interface ConnectorFacts {
  says: string
  /** What is done so that it stays; empty where it holds by itself. */
  mind: string
}

const CONNECTORS = {
  'screw': { says: 'screw terminals', mind: '' },
  'plug-in-screw': { says: 'a plug-in screw terminal', mind: 'latches and does not lock, so relieve the strain' },
  'spring': { says: 'spring terminals', mind: 'held by a spring, so relieve the strain' },
  'tabs': { says: 'push-on tabs', mind: 'snug a loose one gently; the wider tab is often plus, proved all the same' },
  'locking-plug': { says: 'a plug that locks', mind: 'turn it until it locks' },
  'jack': { says: 'a jack plug', mind: 'does not lock, so relieve the strain; never pulled with the amplifier on' },
  'crimped': { says: 'crimped ends', mind: 'pull at each once' },
  'soldered': { says: 'soldered ends', mind: 'sleeve each' },
} as const satisfies Record<string, ConnectorFacts>

export type Connector = keyof typeof CONNECTORS
export const CONNECTOR_IDS = Object.keys(CONNECTORS) as [Connector, ...Connector[]]
export const connectorFacts = (connector: Connector): ConnectorFacts => CONNECTORS[connector]
