import { hostname } from 'node:os'
import { resolve } from 'node:path'
import { checkGiven, ensureAuthority } from './authority.mjs'
import { isFree } from './port.mjs'
import { Failure, say } from './say.mjs'

/**
 * Where others come in: one lasting origin, a name and a port that stay, whatever number the machine has today. A phone keeps its work under it: another
 * origin would be another phone to the browser, with an empty queue.
 */
export const USUAL_SECURE_PORT = 4643
const DAY_MS = 86_400_000
const PART = '[a-z0-9](?:[a-z0-9-]*[a-z0-9])?'
const NAME = new RegExp(`^${PART}(?:\\.${PART})*$`, 'i')
const FOLDER = '.data/authority'

/** What stands in the options, told before anything is begun. @throws Failure for what does not go together */
export function readEntrance({ listen, name, 'secure-port': securePort, certificate, key, balancer, dev }) {
  const wantsOther = Object.entries({ '--name': name, '--secure-port': securePort, '--certificate': certificate, '--key': key }).find(([, value]) => value !== undefined)
  if (!listen && !balancer) {
    if (wantsOther) throw new Failure(`${wantsOther[0]} is for a server that lets others in: name the address of this machine too, as --listen 0.0.0.0.`)
    return null
  }
  if (dev) throw new Failure('While it is worked on it serves this machine alone: --dev goes without --listen.')
  if (name !== undefined && (!NAME.test(name) || /^[\d.]+$/.test(name))) {
    throw new Failure(`--name takes a name as in an address, without a port, not “${name}”. Numbers do not last: a phone keeps its work under the name.`)
  }
  if (balancer) {
    if (name === undefined) throw new Failure('--balancer: --name says what people type.')
    if (certificate || key || securePort) throw new Failure('--balancer: the balancer has the certificate and the port.')
    return { listen: listen ?? null, name: name.toLowerCase(), isBalanced: true }
  }
  if ((certificate === undefined) !== (key === undefined)) throw new Failure('--certificate and --key go together.')
  const port = securePort === undefined ? USUAL_SECURE_PORT : Number(securePort)
  if (!(Number.isInteger(port) && port > 0 && port < 65_535)) throw new Failure(`--secure-port takes a number from 1 to 65534, not “${securePort}”.`)
  const own = `${hostname().split('.')[0].toLowerCase().replaceAll(/[^a-z0-9-]/g, '') || 'plain-match'}.local`
  const given = certificate ? { certificateFile: resolve(certificate), keyFile: resolve(key) } : null
  return { listen, name: (name ?? own).toLowerCase(), port, given, isBalanced: false }
}

/** Makes ready what the server needs to let others in. @returns its setting, and what ends it all */
export async function openEntrance(wanted) {
  const { listen, name, port, given } = wanted
  if (wanted.isBalanced) return { setting: { origin: `https://${name}`, trust: null, secure: null, firstStep: null }, close: async () => {} }
  for (const taken of [port, ...given ? [] : [port + 1]]) {
    if (!await isFree(taken, listen)) {
      throw new Failure(`Port ${taken} on ${listen} is taken by another program. Phones keep their work under ${name}:${port}: free it, or move for good with --secure-port (then each phone sends first what waits).`)
    }
  }
  const files = given ?? await ensureAuthority(FOLDER, name)
  if (given) {
    const { daysLeft } = checkGiven(given.certificateFile, given.keyFile, name)
    if (daysLeft < 14) say(`Caution: the certificate ends in ${daysLeft} days.`)
  }
  else if (files.anew.includes('authority')) say(`A new authority for ${name} was made: each phone takes it once.`)
  // Renewed while it runs, for a machine that is never stopped: the server takes the new one by itself.
  const renew = () => void ensureAuthority(FOLDER, name).catch(error => say(`The certificate could not be renewed: ${error.message}`))
  const renewing = given ? undefined : setInterval(renew, DAY_MS).unref()
  let hush = async () => {}
  if (name.endsWith('.local')) {
    const { answerTo } = await import('./multicastName.mjs')
    hush = await answerTo(name, listen)
  }
  const address = at => ({ address: listen, port: at })
  return {
    setting: {
      origin: `https://${name}:${port}`,
      trust: given ? null : { url: `http://${name}:${port + 1}`, fingerprint: files.fingerprint },
      secure: { ...address(port), certificateFile: resolve(files.certificateFile), keyFile: resolve(files.keyFile) },
      firstStep: given ? null : { ...address(port + 1), authorityFile: resolve(files.authorityFile) },
    },
    close: async () => {
      clearInterval(renewing)
      await hush()
    },
  }
}

/** What is told when it is open. */
export function entranceWords({ origin, trust, secure }) {
  const way = trust ? `\nA phone begins at  ${trust.url}  (once), with the fingerprint\n  ${trust.fingerprint}` : ''
  const name = new URL(origin).hostname
  const resolves = secure && !name.endsWith('.local') ? `\nYour network must give ${name} to this machine.` : ''
  return `\nOthers come in at   ${origin}   each by a code: list of jobs, “phones”, or  npm run let-in${way}${resolves}`
}
