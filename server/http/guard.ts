import { problem, type ProblemError } from './problem'

/** Who may ask for what. Pure: the headers of a request in, a refusal or null out. */

export interface Asked {
  method: string
  path: string
  host: string | undefined
  origin: string | undefined
  fetchSite: string | undefined
  contentType: string | undefined
}

/** Names of this machine itself; a page that another site has bound to its address bears another. */
const OWN_HOSTS = ['127.0.0.1', 'localhost', '[::1]']

/** By itself, or with a port. */
export function isOwnName(host: string | undefined): boolean {
  return OWN_HOSTS.includes(nameIn(host) ?? '')
}
const nameIn = (host: string | undefined) => host?.replace(/:\d+$/, '').toLowerCase()

const METHODS = ['GET', 'HEAD', 'POST', 'PATCH', 'DELETE']

/**
 * Refuses a request that is not from this application's own pages or from a program on purpose.
 * `hosts`: further names that the server was told to answer to.
 */
export function refusalOf({ method, path, host, origin, fetchSite, contentType }: Asked, hosts: readonly string[]): ProblemError | null {
  const name = nameIn(host)
  if (name === undefined || ![...OWN_HOSTS, ...hosts].includes(name)) {
    return problem(421, 'other-host', `This server does not answer to the name “${(host ?? '').slice(0, 100)}”. Use the address that it printed when it started.`)
  }
  if (!isApi(path)) return null
  if (!METHODS.includes(method)) return problem(405, 'no-such-method', `${method.slice(0, 20)} is not done here.`)
  if (method === 'GET' || method === 'HEAD') return null
  if (fetchSite !== undefined && fetchSite !== 'same-origin' && fetchSite !== 'none') return problem(403, 'from-elsewhere', 'Changes are taken from this application’s own pages only.')
  if (origin !== undefined && originHost(origin) !== host?.toLowerCase()) return problem(403, 'from-elsewhere', 'Changes are taken from this application’s own pages only.')
  if (method !== 'DELETE' && contentType?.split(';')[0]!.trim().toLowerCase() !== 'application/json') {
    return problem(415, 'not-json', 'Changes are sent as application/json.')
  }
  return null
}

export function isApi(path: string): boolean {
  return /^\/api(?:[/?]|$)/.test(path)
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host
  }
  catch {
    return null
  }
}
