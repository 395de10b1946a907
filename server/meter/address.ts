import { lookup } from 'node:dns/promises'
import { BlockList, isIP } from 'node:net'
import { problem } from '../http/problem'

/** Where a meter may be: on this machine and on networks of one's own. A server that connects wherever it is told would be a way into other people's. */
const OWN = new BlockList()
OWN.addSubnet('127.0.0.0', 8)
// RFC 1918, RFC 3927 and RFC 4193, RFC 4291.
OWN.addSubnet('10.0.0.0', 8)
OWN.addSubnet('172.16.0.0', 12)
OWN.addSubnet('192.168.0.0', 16)
OWN.addSubnet('169.254.0.0', 16)
OWN.addAddress('::1', 'ipv6')
OWN.addSubnet('fc00::', 7, 'ipv6')
OWN.addSubnet('fe80::', 10, 'ipv6')

/** An address that stands for another way to write IPv4 is looked at as that. */
export function isOwnAddress(address: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1]
  const plain = mapped ?? address
  const family = isIP(plain)
  return family !== 0 && OWN.check(plain, family === 6 ? 'ipv6' : 'ipv4')
}

/**
 * The address to connect to: looked up once and connected to as it was found, so that a name which answers otherwise the second time leads nowhere else.
 * `anywhere`: the server was started with --meter-anywhere.
 * @throws ProblemError
 */
export async function addressOf(host: string, anywhere = process.env.PLAIN_MATCH_METER_ANYWHERE === '1'): Promise<string> {
  const plain = host.replace(/^\[|\]$/g, '')
  const address = isIP(plain) ? plain : await lookup(plain).then(found => found.address, () => { throw problem(424, 'meter-not-found', `No machine of the name “${host}” is found on this network.`) })
  if (!anywhere && !isOwnAddress(address)) throw problem(424, 'meter-elsewhere', `${host} is not on a network of your own. Where that is meant, start with --meter-anywhere.`)
  return address
}
