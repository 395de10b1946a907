import { X509Certificate } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { run } from './run.mjs'
import { Failure } from './say.mjs'

/**
 * A small authority of this machine's own, for phones on the firm's network: it vouches for one name and can vouch for nothing else (name constraints that
 * are critical, no address at all), its key is readable by this user alone, and what it signs is renewed in time. Made by openssl, from Debian's packages.
 */
const AUTHORITY_DAYS = 3650
/** Phones take no certificate of more than 825 days, some none of more than 398. */
const SERVER_DAYS = 200
/** Signed anew when less is left. */
const RENEW_DAYS = 60
/** An authority with less left than a certificate lives is made anew: every phone takes the new one. */
const AUTHORITY_RENEW_DAYS = 365
const DAY_MS = 86_400_000
const OPENSSL = 'openssl'

const authorityConfig = name => `[req]
distinguished_name = dn
x509_extensions = ext
prompt = no
[dn]
CN = Plain Match authority for ${name}
[ext]
basicConstraints = critical, CA:TRUE, pathlen:0
keyUsage = critical, keyCertSign, cRLSign
subjectKeyIdentifier = hash
nameConstraints = critical, @only
[only]
permitted;DNS.0 = ${name}
excluded;IP.0 = 0.0.0.0/0.0.0.0
excluded;IP.1 = 0:0:0:0:0:0:0:0/0:0:0:0:0:0:0:0
`
const serverExtensions = name => `basicConstraints = critical, CA:FALSE
keyUsage = critical, digitalSignature
extendedKeyUsage = serverAuth
subjectAltName = DNS:${name}
subjectKeyIdentifier = hash
authorityKeyIdentifier = keyid
`

const daysLeft = (certificate, now) => (Date.parse(certificate.validTo) - now) / DAY_MS

function readCertificate(file) {
  try {
    return new X509Certificate(readFileSync(file))
  }
  catch {
    return null
  }
}

/** Writes to a name beside it and renames: a server that looks just then sees the old or the new, never half. */
async function made(file, make, mode) {
  const fresh = `${file}.new`
  try {
    await make(fresh)
    if (mode) chmodSync(fresh, mode)
    renameSync(fresh, file)
  }
  finally {
    rmSync(fresh, { force: true })
  }
}
const newKey = file => made(file, async (fresh) => {
  writeFileSync(fresh, '', { mode: 0o600 })
  await run(OPENSSL, ['genpkey', '-algorithm', 'EC', '-pkeyopt', 'ec_paramgen_curve:P-256', '-out', fresh])
}, 0o600)

/**
 * Makes what is not there yet or ends soon. `now` is handed in for tests.
 * @returns the files, the authority's fingerprint,and what was made anew
 */
export async function ensureAuthority(folder, name, now = Date.now(), serverDays = SERVER_DAYS) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const at = file => join(folder, file)
  const [authorityFile, authorityKey, certificateFile, keyFile] = [at('authority.crt'), at('authority.key'), at('server.crt'), at('server.key')]
  const anew = []
  const known = readCertificate(authorityFile)
  const isFor = known?.subject === `CN=Plain Match authority for ${name}`
  if (!known || !isFor || !existsSync(authorityKey) || daysLeft(known, now) < AUTHORITY_RENEW_DAYS) {
    await newKey(authorityKey)
    writeFileSync(at('authority.cnf'), authorityConfig(name))
    const itself = ['-key', authorityKey, '-sha256', '-days', String(AUTHORITY_DAYS), '-config', at('authority.cnf')]
    await made(authorityFile, fresh => run(OPENSSL, ['req', '-x509', '-new', ...itself, '-out', fresh]))
    anew.push('authority')
  }
  const authority = readCertificate(authorityFile)
  const server = readCertificate(certificateFile)
  const stands = server && existsSync(keyFile) && server.checkIssued(authority) && server.verify(authority.publicKey) && server.checkHost(name) !== undefined
  if (!stands || daysLeft(server, now) < RENEW_DAYS) {
    if (!existsSync(keyFile)) await newKey(keyFile)
    const request = at('server.csr')
    await run(OPENSSL, ['req', '-new', '-key', keyFile, '-subj', `/CN=${name}`, '-out', request])
    writeFileSync(at('server.cnf'), serverExtensions(name))
    const signed = ['-CA', authorityFile, '-CAkey', authorityKey, '-sha256', '-days', String(serverDays), '-extfile', at('server.cnf')]
    await made(certificateFile, fresh => run(OPENSSL, ['x509', '-req', '-in', request, ...signed, '-out', fresh]))
    anew.push('certificate')
  }
  return { authorityFile, certificateFile, keyFile, fingerprint: authority.fingerprint256, anew }
}

/** A certificate that was given: refused at the start where it would not do, with what is wrong. */
export function checkGiven(certificateFile, keyFile, name, now = Date.now()) {
  for (const [file, what] of [[certificateFile, '--certificate'], [keyFile, '--key']]) {
    if (!existsSync(file)) throw new Failure(`${what}: there is no file ${file}.`)
  }
  const certificate = readCertificate(certificateFile)
  if (!certificate) throw new Failure(`--certificate: ${certificateFile} is no certificate in PEM form.`)
  if (certificate.checkHost(name) === undefined) throw new Failure(`--certificate: it is not for ${name}, but for ${certificate.subjectAltName ?? certificate.subject}.`)
  const left = Math.floor(daysLeft(certificate, now))
  if (left < 0) throw new Failure(`--certificate: it ended on ${certificate.validTo}.`)
  return { daysLeft: left }
}
