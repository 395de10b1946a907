import { KIND_NAMES } from '#core/check/gradeWords'
import { amplifierFor, phaseOf } from '#core/check/walk'
import { CAUTION, KIND_WORDS, PHASE_WORDS } from '#core/check/words'
import type { Predicted } from '#core/check/predict'
import { roomName } from '#core/job/sections/shares/schema'
import { PHASES, factsOf, type ReadingKind } from '#core/job/sections/readings/kinds'
import { spacesByNode } from '#core/job/heard'
import { writeQuantity } from '#core/quantity/write'
import { numberedStops, walkCode, type Numbered } from '../numbered'
import { NOTHING, type SheetMaker } from '../sheet'

const COLUMNS = [{ says: 'no.', isFigure: true }, { says: 'where', isWide: true }, { says: 'what' }, { says: 'right is' }, { says: 'read', isWritten: true }, { says: 'note', isWritten: true }] as const

/** What is right, as a person reads it on a ladder. */
export function rightText(kind: ReadingKind, plan: Predicted | null): string {
  if (kind === 'sound') return plan?.isOpen ? 'silent' : 'plays'
  if (factsOf(kind).value === 'turned') return 'right way round'
  if (plan === null) return 'not known'
  if (plan.isOpen) return 'open'
  return plan.low === null || plan.high === null ? 'not known' : `${writeQuantity(plan.low, 'Ω')} to ${writeQuantity(plan.high, 'Ω')}`
}

/** Every reading of the walk with room to write, in the order in which it is walked and typed in. */
export const walk: SheetMaker = {
  id: 'walk', title: 'Walk', says: 'every reading to take, with room to write',
  make: (data) => {
    const stops = numberedStops(data)
    const spaceOf = spacesByNode(data.job)
    const whose = new Map(data.job.shares.map(share => [share.roomId, share.name]))
    const where = ({ at: { stop: { speaker }, output } }: Numbered) => speaker
      ? [`${output.label} ${speaker.label}`, speaker.name, spaceOf.get(speaker.id)?.name].filter(Boolean).join(', ')
      : `${output.label} ${output.name}, at the rack`
    const shared = [...whose].map(([roomId, name]) => `${roomName(data.job, roomId)}: ${name}`).filter(text => !text.startsWith(':'))
    return {
      ...NOTHING,
      code: walkCode(stops),
      empty: 'Nothing is asked to be read.',
      before: [CAUTION, 'The meter is tried on something known first, its leads nulled or written down.', ...shared.length > 0 ? [`Shared out: ${shared.join('; ')}.`] : []],
      tables: PHASES.flatMap((phase) => {
        const here = stops.filter(({ at }) => phaseOf(at.stop) === phase)
        if (here.length === 0) return []
        const kinds = [...new Set(here.map(({ at }) => at.stop.kind))]
        return [{
          caption: PHASE_WORDS[phase], columns: COLUMNS,
          says: [`Amplifier ${amplifierFor(kinds[0]!) === 'on' ? 'ON' : 'OFF'}.`, ...kinds.map(kind => `${KIND_NAMES[kind]}: ${KIND_WORDS[kind].steps[0]}`)].join(' '),
          rows: here.map(numbered => ({ cells: [String(numbered.no), where(numbered), KIND_NAMES[numbered.at.stop.kind], rightText(numbered.at.stop.kind, planOf(numbered)), '', ''] })),
        }]
      }),
    }
  },
}
const planOf = ({ at: { proof, stop } }: Numbered): Predicted | null => proof.foretold(stop.kind, stop.speaker?.id ?? null)
