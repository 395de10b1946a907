import type { Branch, Speaker, SpeakerLoad } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { writeCable } from '#core/quantity/cable'
import { writeNumber } from '#core/quantity/write'
import { asWired, isGroup, nominalOhmOf } from '#core/network/tree'

/**
 * Speakers as a table, as a spreadsheet copies and pastes it: a line each, tabs between the columns, the names of the columns first.
 * Groups are not in it: each speaker stands alone, with the lead that it hangs on.
 */
export const TABLE_COLUMNS = ['label', 'what it is', 'wired as', 'taps, W', 'rating', 'driver', 'length', 'cable'] as const

export function writeTable(branches: readonly Branch[]): string {
  const rows = branches.flatMap(branch => isGroup(branch.node)
    ? speakersOf(branch.node).map((speaker, k) => rowOf(speaker, k === 0 ? branch.lead : null))
    : [rowOf(branch.node, branch.lead)])
  return [TABLE_COLUMNS.join('\t'), ...rows.map(row => row.map(cell => cell.replace(/[\t\r\n]+/g, ' ')).join('\t'))].join('\n')
}

function rowOf({ label, name, load, continuousW, driverOhm }: Speaker, lead: Branch['lead']): string[] {
  return [
    label, name, load.kind === 'tap' ? `${load.tapW === 0 ? 'off' : `${writeNumber(load.tapW, 6)} W`} at ${writeNumber(load.ratedV, 5)} V` : ohmsOf(load),
    load.kind === 'tap' ? load.tapsW.map(w => writeNumber(w, 6)).join(' ') : '', continuousW === null ? '' : `${writeNumber(continuousW, 6)} W`,
    driverOhm === null ? '' : `${writeNumber(driverOhm, 6)} ohm`, lead ? `${writeNumber(lead.lengthM, 6)} m` : '', lead?.cable ? writeCable(lead.cable) : '',
  ]
}

/** "8 ohm"; of several coils or drivers "4 + 4 ohm" in series, "4 || 4 ohm" side by side. */
function ohmsOf(load: Exclude<SpeakerLoad, { kind: 'tap' }>): string {
  const wired = asWired(load)
  if (wired.kind !== 'members') return `${writeNumber(nominalOhmOf(load), 6)} ohm`
  return `${wired.members.map(m => writeNumber(m.nominalOhm, 6)).join(wired.joined === 'series' ? ' + ' : ' || ')} ohm`
}
