/** A program of yes-or-no choices and of counts, as data and as the text that solvers of linear programs read (the widely used LP form). */
export interface Program {
  /** What it is about, as remarks at its head. */
  remarks: readonly string[]
  minimize: ReadonlyMap<string, number>
  rows: readonly Row[]
  /** Variables that are taken (1) or not (0). */
  choices: readonly string[]
  /** Variables that count, from none up to so many. */
  counts?: readonly { name: string, most: number }[]
}
export interface Row { name: string, sum: ReadonlyMap<string, number>, is: '<=' | '=', value: number }

/** What a solver says. `taken`: the choices taken, `counted`: the counts that are above none, by name. */
export interface Solved { status: 'optimal' | 'infeasible', objective: number, taken: ReadonlySet<string>, counted: ReadonlyMap<string, number> }
/** Solves the text of a program to its proven optimum. Given in: the core loads nothing. */
export type SolveLp = (lp: string) => Promise<Solved>

/** Figures to so many places that two ways of adding them agree. */
const figure = (value: number) => String(Number(value.toPrecision(12)))
/** Lines of a program are read whole; long sums go over several. */
const PER_LINE = 8

function sumText(sum: ReadonlyMap<string, number>): string {
  const terms = [...sum].filter(([, factor]) => factor !== 0).map(([name, factor]) => `${factor < 0 ? '-' : '+'} ${figure(Math.abs(factor))} ${name}`)
  const lines: string[] = []
  for (let k = 0; k < terms.length; k += PER_LINE) lines.push(terms.slice(k, k + PER_LINE).join(' '))
  return lines.join('\n   ')
}

export function writeLp({ remarks, minimize, rows, choices, counts = [] }: Program): string {
  const some = [...minimize].some(([, factor]) => factor !== 0)
  return [
    ...remarks.map(r => `\\ ${r.replace(/[\r\n]+/g, ' ')}`),
    'Minimize', ` obj: ${some ? sumText(minimize) : `0 ${choices[0] ?? counts[0]?.name ?? 'x'}`}`,
    'Subject To', ...rows.filter(r => [...r.sum.values()].some(f => f !== 0)).map(r => ` ${r.name}: ${sumText(r.sum)} ${r.is} ${figure(r.value)}`),
    ...counts.length > 0 ? ['Bounds', ...counts.map(c => ` 0 <= ${c.name} <= ${c.most}`), 'General', ...counts.map(c => ` ${c.name}`)] : [],
    ...choices.length > 0 ? ['Binary', ...choices.map(c => ` ${c}`)] : [], 'End', '',
  ].join('\n')
}

/** What of HiGHS's answer is read here. */
export interface HighsAnswer { Status: string, ObjectiveValue?: number | null, Columns: Record<string, { Primal?: number }> }
/** An answer of HiGHS. @throws Error where it came to no end: that is a fault of the program, not of what was asked */
export function solvedByHighs({ Status, ObjectiveValue, Columns }: HighsAnswer): Solved {
  if (Status === 'Infeasible' || Status === 'Primal infeasible or unbounded') return { status: 'infeasible', objective: 0, taken: new Set(), counted: new Map() }
  if (Status !== 'Optimal') throw new Error(`The solver ended with “${Status}”.`)
  const some = Object.entries(Columns).flatMap(([name, c]): [string, number][] => (c.Primal ?? 0) > 0.5 ? [[name, Math.round(c.Primal!)]] : [])
  return { status: 'optimal', objective: ObjectiveValue ?? 0, taken: new Set(some.map(([name]) => name)), counted: new Map(some) }
}
/** To the proven optimum: by default it would stop a ten-thousandth short of it. */
export const HIGHS_OPTIONS = { mip_rel_gap: 0, mip_abs_gap: 0 } as const

/** HiGHS, once it is loaded, as the searches here ask it. */
export const solverOf = (highs: { solve: (lp: string, options: typeof HIGHS_OPTIONS) => unknown }): SolveLp =>
  lp => Promise.resolve(solvedByHighs(highs.solve(lp, HIGHS_OPTIONS) as HighsAnswer))
