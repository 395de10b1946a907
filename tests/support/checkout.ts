import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'

/** A copy of the project in a folder of its own, with the tests' build: its start script can be started and killed beside anything else. */
export class Checkout {
  readonly folder = mkdtempSync(join(tmpdir(), 'checkout-'))
  private readonly started: Started[] = []

  constructor() {
    chmodSync(this.folder, 0o755)
    const files = execFileSync('git', ['ls-files', '-z', '--cached', '--others', '--exclude-standard'], { encoding: 'utf8' }).split('\0').filter(f => f !== '' && existsSync(f) && !f.startsWith('docs/'))
    for (const file of files) {
      mkdirSync(dirname(join(this.folder, file)), { recursive: true })
      cpSync(file, join(this.folder, file), { preserveTimestamps: true })
    }
    symlinkSync(resolve('node_modules'), join(this.folder, 'node_modules'))
    cpSync(resolve('.build/test'), join(this.folder, '.build/start'), { recursive: true })
    mkdirSync(join(this.folder, '.nuxt'))
  }

  /** Starts it as its user would, from another folder; `by` npm, or the script itself, that on a disk which nobody can write to as well. */
  start(args: string[], { env = {}, by = 'script' }: { env?: Record<string, string>, by?: 'script' | 'npm' | 'script on a read-only disk' } = {}): Started {
    const script = [process.execPath, join(this.folder, 'scripts/start.mjs'), ...args]
    // Read-only in a view of the disks that only this process has.
    const readOnly = `mount --bind "${this.folder}" "${this.folder}" && mount -o remount,ro,bind "${this.folder}" && exec "$@"`
    const command = {
      'npm': ['npm', ['--prefix', this.folder, 'start', '--', ...args]] as const,
      'script': [script[0]!, script.slice(1)] as const,
      'script on a read-only disk': ['unshare', [process.getuid?.() === 0 ? '-m' : '-rm', 'sh', '-c', readOnly, 'sh', ...script]] as const,
    }[by]
    const clean = Object.fromEntries(Object.entries(process.env).filter(([name]) => !/^(npm_|TEST_|NODE_OPTIONS|DATABASE_URL)/.test(name)))
    const started = new Started(spawn(command[0], command[1], { cwd: this.elsewhere, env: { ...clean, ...env }, stdio: ['ignore', 'pipe', 'pipe'], detached: true }))
    this.started.push(started)
    return started
  }

  readonly elsewhere = mkdtempSync(join(tmpdir(), 'elsewhere-'))

  async remove(): Promise<void> {
    for (const started of this.started) await started.end('SIGTERM')
    rmSync(this.folder, { recursive: true, force: true })
    rmSync(this.elsewhere, { recursive: true, force: true })
  }

  /** Every process that runs from this copy or on its data. */
  processes(): number[] {
    return readdirSync('/proc').filter(name => /^\d+$/.test(name)).map(Number).filter((pid) => {
      try {
        const command = execFileSync('tr', ['\\0', ' '], { input: execFileSync('cat', [`/proc/${pid}/cmdline`]), encoding: 'utf8' })
        const folder = execFileSync('readlink', [`/proc/${pid}/cwd`], { encoding: 'utf8' }).trim()
        return command.includes(this.folder) || folder.startsWith(this.folder)
      }
      catch {
        return false
      }
    })
  }
}

export class Started {
  log = ''
  constructor(readonly child: ChildProcess) {
    child.stdout!.on('data', chunk => this.log += String(chunk))
    child.stderr!.on('data', chunk => this.log += String(chunk))
  }

  get hasEnded(): boolean {
    return this.child.exitCode !== null || this.child.signalCode !== null
  }

  /** Waits for words of the script. */
  async says(words: RegExp, patienceMs = 60_000): Promise<string> {
    await until(() => words.test(this.log) || this.hasEnded, patienceMs)
    if (!words.test(this.log)) throw new Error(`it did not say ${words}:\n${this.log}`)
    return words.exec(this.log)![0]
  }

  async url(): Promise<string> {
    return /http\S+/.exec(await this.says(/is ready: {2}http\S+/))![0]
  }

  /** The exit code; null when a signal ended it. */
  async ended(patienceMs = 30_000): Promise<number | null> {
    await until(() => this.hasEnded, patienceMs)
    if (!this.hasEnded) throw new Error(`it did not end:\n${this.log}`)
    return this.child.exitCode
  }

  async end(signal: NodeJS.Signals): Promise<void> {
    if (!this.hasEnded) this.child.kill(signal)
    await this.ended().catch(() => this.child.kill('SIGKILL'))
  }
}

export async function until(isSo: () => boolean | Promise<boolean>, patienceMs = 15_000): Promise<boolean> {
  const last = Date.now() + patienceMs
  while (Date.now() < last) {
    if (await isSo()) return true
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return false
}
