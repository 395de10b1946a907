import { GRADE_WORDS } from '#core/check/gradeWords'
import { headFigures } from '#core/line/headFigures'
import { findingWords } from '#core/line/words'
import { isBad } from '#core/line/finding'
import { isGroup } from '#core/network/tree'
import type { Chain } from '#core/job/schema'
import type { Group } from '#core/job/sections/wiring/schema'
import { writeCable } from '#core/quantity/cable'
import { writeLength, type Units } from '#core/quantity/units'
import { throughText, wattText, wiringText } from '~/drawing/speakerText'
import { NOTHING, NOT_KNOWN, type SheetMaker, type SheetRow } from '../sheet'
import type { LineEvaluation } from '#core/line/evaluate'

const COLUMNS = [{ says: 'at' }, { says: 'what hangs there', isWide: true }, { says: 'wired', isFigure: true }, { says: 'gets', isFigure: true }, { says: 'lost', isFigure: true }, { says: 'cable to it' }] as const

/** Each line down its rail, in cable order: what hangs there, what it is wired as, what it gets. */
export const runSheet: SheetMaker = {
  id: 'run', title: 'Run sheet', says: 'each line down its rail, with watts and cable',
  make: ({ job, lines, units }) => ({
    ...NOTHING,
    empty: 'The sheet has no line yet.',
    tables: lines.map((line) => {
      const amplifier = job.amplifiers.find(a => a.outputs.some(o => o.id === line.outputId))
      const bad = line.findings.filter(isBad).map(f => findingWords(f).what)
      return {
        caption: `${line.output.label} ${line.output.name}`.trim(),
        says: [[amplifier?.name, amplifier?.place].filter(Boolean).join(', '), headFigures(line).says, `as planned: ${GRADE_WORDS[line.grade]}`, ...bad].filter(Boolean).join(' · '),
        columns: COLUMNS, rows: rowsOf(line, units), isRail: true,
      }
    }),
  }),
}

function rowsOf(line: LineEvaluation, units: Units): SheetRow[] {
  const drops = new Map(line.drops.map(d => [d.nodeId, d]))
  const visit = ({ children }: Chain | Group, depth: number): SheetRow[] => children.flatMap(({ node, lead }): SheetRow[] => {
    const cable = lead === null ? '' : `${writeCable(lead.cable)}, ${writeLength(lead.lengthM, units)}`
    if (isGroup(node)) {
      const head = node.through
        ? { cells: [node.through.label, node.through.name, throughText(node.through), '', '', cable], depth }
        : { cells: ['', node.kind === 'series' ? 'in series' : node.kind === 'star' ? 'each from here' : 'on from here', '', '', '', cable], depth }
      return [head, ...visit(node, depth + 1)]
    }
    const drop = drops.get(node.id)
    return [{ cells: [node.label, node.name, wiringText(node), drop?.powerW == null ? NOT_KNOWN : `${wattText(drop.powerW)} W`, drop ? lost(drop.lossDb) : '', cable], depth }]
  })
  return visit(line.output.wiring, 0)
}
/** Where no cable is stated nothing is lost that anybody knows of. */
const lost = (db: number) => db > -0.05 ? '' : `${db.toFixed(1).replace('-', '−')} dB`
