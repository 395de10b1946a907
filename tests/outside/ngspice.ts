import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { SpiceNetlist } from '#core/format/spice'

export interface SpiceRow { frequencyHz: number, values: { re: number, im: number }[] }

/** Runs ngspice in batch mode on a netlist and reads complex vectors back with all their digits. */
export function runNgspice({ text }: SpiceNetlist, vectors: string[]): { rows: SpiceRow[], acSeconds: number } {
  const folder = mkdtempSync(join(tmpdir(), 'netlist-'))
  try {
    const control = [
      '.control', 'set noaskquit', 'set filetype=ascii', 'run', 'set numdgt=16', 'set wr_singlescale',
      ...(vectors.length > 0 ? [`wrdata out ${vectors.join(' ')}`] : []), 'rusage all', 'quit', '.endc',
    ]
    writeFileSync(join(folder, 'line.cir'), text.replace(/\.end\n$/, [...control, '.end', ''].join('\n')))
    const log = execFileSync('ngspice', ['-b', 'line.cir'], { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], maxBuffer: 1e9 })
    const analysis = /AC analysis time = ([\d.e+-]+)/i.exec(log)
    const rows = vectors.length === 0
      ? []
      : readFileSync(join(folder, 'out'), 'utf8').trim().split('\n').map((line) => {
          const [frequencyHz, ...numbers] = line.trim().split(/\s+/).map(Number)
          return { frequencyHz: frequencyHz!, values: vectors.map((_, k) => ({ re: numbers[2 * k]!, im: numbers[2 * k + 1]! })) }
        })
    return { rows, acSeconds: analysis ? Number(analysis[1]) : Number.NaN }
  }
  finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Vector of the voltage across a pair of nodes. */
export function across({ plus, minus }: { plus: string, minus: string }): string {
  if (plus === minus) return '0*v(n1)'
  if (minus === '0') return `v(${plus})`
  return plus === '0' ? `-v(${minus})` : `(v(${plus})-v(${minus}))`
}
