import type { Entrance } from '#core/door/door'

/** Where others come in, as the starter has set it up (scripts/lib/entrance.mjs); null where this machine alone is served. */
export interface EntranceSetting extends Entrance {
  /** Where HTTPS is served; null behind a balancer, which does it. */
  secure: { address: string, port: number, certificateFile: string, keyFile: string } | null
  /** Where a phone finds the authority, over plain HTTP: nothing else is there. */
  firstStep: { address: string, port: number, authorityFile: string } | null
}

export function entranceSetting(): EntranceSetting | null {
  const text = process.env.PLAIN_MATCH_ENTRANCE
  return text ? JSON.parse(text) as EntranceSetting : null
}

export function entrance(): Entrance | null {
  const setting = entranceSetting()
  return setting && { origin: setting.origin, trust: setting.trust }
}
