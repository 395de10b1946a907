import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort } from './server'

/** An entrance as the starter sets it up, on loopback: a name, an authority of its own, ports; and a way to ask through it. */
export const NAME = 'rack.local'
export interface Files { authorityFile: string, certificateFile: string, keyFile: string, fingerprint: string }
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export interface Answered { status: number, body: any, cookies: string[], headers: Record<string, unknown> }

export class TestEntrance {
  private constructor(readonly folder: string, readonly files: Files, readonly port: number, readonly firstPort: number) {}

  static async make(port?: number): Promise<TestEntrance> {
    const folder = mkdtempSync(join(tmpdir(), 'entrance-'))
    return new TestEntrance(folder, await ensureAuthority(folder, NAME), port ?? await freePort(), port === undefined ? await freePort() : port + 1)
  }

  get origin(): string {
    return `https://${NAME}:${this.port}`
  }

  /** What the server is told (scripts/start.mjs). */
  get env(): Record<string, string> {
    const at = (port: number) => ({ address: '127.0.0.1', port })
    const { authorityFile, certificateFile, keyFile, fingerprint } = this.files
    return {
      PLAIN_MATCH_HOSTS: NAME,
      PLAIN_MATCH_ENTRANCE: JSON.stringify({
        origin: this.origin, trust: { url: `http://${NAME}:${this.firstPort}`, fingerprint },
        secure: { ...at(this.port), certificateFile, keyFile }, firstStep: { ...at(this.firstPort), authorityFile },
      }),
    }
  }

  /** Asks from the network, with the authority alone trusted. */
  ask(method: string, path: string, { key, body, headers = {} }: { key?: string, body?: unknown, headers?: Record<string, string> } = {}): Promise<Answered> {
    return new Promise((resolve, reject) => {
      const all = { 'host': `${NAME}:${this.port}`, ...(method === 'GET' ? {} : { 'content-type': 'application/json' }), ...(key ? { cookie: key } : {}), ...headers }
      const outgoing = request({ host: '127.0.0.1', port: this.port, servername: NAME, ca: readFileSync(this.files.authorityFile), agent: false, method, path, headers: all }, (incoming) => {
        let text = ''
        incoming.on('data', chunk => text += String(chunk))
        incoming.on('end', () => resolve({
          status: incoming.statusCode!, body: text.startsWith('{') ? JSON.parse(text) : text, cookies: incoming.headers['set-cookie'] ?? [], headers: incoming.headers,
        }))
        incoming.on('error', reject)
      })
      outgoing.on('error', reject)
      outgoing.end(body === undefined ? undefined : JSON.stringify(body))
    })
  }

  /** A home for a browser that trusts this authority and no more than a person's own does. */
  browserHome(): string {
    const home = mkdtempSync(join(this.folder, 'home-'))
    const database = `sql:${join(home, '.pki/nssdb')}`
    mkdirSync(join(home, '.pki/nssdb'), { recursive: true })
    execFileSync('certutil', ['-d', database, '-N', '--empty-password'])
    execFileSync('certutil', ['-d', database, '-A', '-t', 'C,,', '-n', 'plain-match', '-i', this.files.authorityFile])
    return home
  }

  remove(): void {
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/** The starter's own, which is JavaScript. */
export async function ensureAuthority(folder: string, name: string, now?: number, days?: number): Promise<Files & { anew: string[] }> {
  const path: string = '../../scripts/lib/authority.mjs'
  const { ensureAuthority: ensure } = await import(path) as { ensureAuthority: (...all: unknown[]) => Promise<Files & { anew: string[] }> }
  return ensure(folder, name, now, days)
}
