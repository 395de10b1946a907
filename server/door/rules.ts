/**
 * Who may reach what, for every address of the interface: one list, which the tests hold against the routes that there are and walk with a key, without one,
 * and with one that was taken back. Pages and what they are made of are open to all: nothing of a job is in them.
 */
export type Needs
  /** nothing: it tells nothing, or it is the door itself */
  = | 'nothing'
  /** a device that was let in, or the machine itself */
    | 'let in'
  /** the machine itself, or a device that may let others in */
    | 'may let in'

export const RULES: Readonly<Record<string, Needs>> = {
  'GET /api/health': 'nothing',
  'HEAD /api/health': 'nothing',
  'POST /api/devices/let-in': 'nothing',
  'GET /api/devices/me': 'nothing',
  'GET /api/devices/names': 'let in',
  'GET /api/devices': 'may let in',
  'POST /api/devices/code': 'may let in',
  'DELETE /api/devices/code': 'may let in',
  'DELETE /api/devices/:id': 'may let in',
  'GET /api/jobs': 'let in',
  'POST /api/jobs': 'let in',
  'GET /api/jobs/:id': 'let in',
  'PATCH /api/jobs/:id': 'let in',
  'DELETE /api/jobs/:id': 'let in',
  'POST /api/jobs/:id/sync': 'let in',
  'POST /api/jobs/:id/here': 'let in',
  'GET /api/jobs/:id/file': 'let in',
  'GET /api/jobs/:id/archive': 'let in',
  'GET /api/jobs/:id/netlist': 'let in',
  'POST /api/photos': 'let in',
  'GET /api/photos/:hash': 'let in',
  'GET /api/gear': 'let in',
  'POST /api/gear': 'let in',
  'PATCH /api/gear': 'let in',
  'POST /api/gear/acts': 'let in',
  'GET /api/gear/file': 'let in',
  'GET /api/gear/whole': 'let in',
  'GET /api/gear/:id': 'let in',
  'PATCH /api/gear/:id': 'let in',
  'POST /api/gear/:id/versions': 'let in',
  'GET /api/meters': 'let in',
  'POST /api/meters': 'may let in',
  'DELETE /api/meters/:id': 'may let in',
  'POST /api/meters/:id/read': 'let in',
  'GET /api/practice': 'let in',
  'POST /api/practice': 'let in',
  'GET /api/live': 'let in',
}

/** What is asked of whoever wants this. An address of the interface that no rule names asks for a key: it may tell nothing of what there is. */
export function needsOf(method: string, path: string): Needs {
  const parts = path.replace(/[?#].*$/, '').split('/').filter(Boolean)
  const named = (rule: string) => {
    const [itsMethod, itsPath] = rule.split(' ') as [string, string]
    const its = itsPath.split('/').filter(Boolean)
    return itsMethod === method && its.length === parts.length && its.every((part, k) => part.startsWith(':') || part === parts[k])
  }
  // The exact name before the one with a place for any.
  const found = Object.keys(RULES).filter(named).sort((a, b) => Number(a.includes(':')) - Number(b.includes(':')))
  return found[0] === undefined ? 'let in' : RULES[found[0]]!
}
