import { USUAL_LINE_V } from '#core/amplifier/index'
import { MOST_MEMBERS } from '#core/gear/load'
import { USUAL_TAPS_W } from '#core/hands/intents'
import { isTakenAs, TAKEN_AS } from '#core/hands/takenAs'
import type { Speaker, SpeakerLoad } from '#core/job/schema'
import { nominalOhmOf, type TapMeans } from '#core/network/tree'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { writeNumber } from '#core/quantity/write'

/** The ways a speaker can be wired, and what is taken for each until it is known. */

type LoadKind = SpeakerLoad['kind']
export const WIRED_AS: { value: LoadKind, label: string }[] = [
  { value: 'tap', label: 'line transformer' }, { value: 'nominal', label: 'impedance by its label' }, { value: 'motional', label: 'drive unit’s parameters' },
  { value: 'curve', label: 'a measured curve' }, { value: 'members', label: 'several coils or drivers' }, { value: 'coil', label: 'one coil, its own terminals' }, { value: 'cabinet', label: 'cabinet with jacks' },
]

/** What is changed when a speaker is wired another way; what is not known yet is named as taken, until somebody names the unit. */
export function wiredAs(speaker: Pick<Speaker, 'load' | 'driverOhm' | 'name' | 'label'>, kind: LoadKind, lineV: number | null): Partial<Speaker> {
  const { load } = speaker
  const nominalOhm = load.kind === 'tap' ? speaker.driverOhm ?? 8 : nominalOhmOf(load)
  const loads: Record<LoadKind, SpeakerLoad> = {
    tap: { kind: 'tap', tapW: 10, ratedV: lineV ?? USUAL_LINE_V, tapsW: [...USUAL_TAPS_W], insertionDb: null, tapMeans: null },
    nominal: { kind: 'nominal', nominalOhm },
    // A plain full-range unit to start from; every figure is there to be overwritten by its sheet.
    motional: { kind: 'motional', nominalOhm, reOhm: nominalOhm * 0.8, leH: 0.0005, fsHz: 80, qms: 4, qes: 0.6 },
    // Two coils of the ohms that it had, in parallel: the commonest of the two ways. Common practice, no source.
    members: { kind: 'members', joined: 'parallel', members: [{ kind: 'nominal', nominalOhm }, { kind: 'nominal', nominalOhm }] },
    // As its label over the hearing range, until a measured file is taken in its place.
    curve: { kind: 'curve', nominalOhm, reOhm: null, points: [[20, nominalOhm, null], [20_000, nominalOhm, null]] },
    coil: { kind: 'coil', unit: speaker.label, of: 2, coil: { kind: 'nominal', nominalOhm } },
    // Four drivers of the ohms that it had, as most four-driver cabinets with a switch are wired. Common practice, no source.
    cabinet: {
      kind: 'cabinet', at: 0, positions: [
        { jack: '16 Ω', switchTo: 'mono', plays: 'all', load: { kind: 'nominal', nominalOhm: 16 } }, { jack: '4 Ω', switchTo: 'mono', plays: 'all', load: { kind: 'nominal', nominalOhm: 4 } },
        { jack: 'left', switchTo: 'stereo', plays: 'half', load: { kind: 'nominal', nominalOhm: 8 } }, { jack: 'right', switchTo: 'stereo', plays: 'half', load: { kind: 'nominal', nominalOhm: 8 } },
      ],
    },
  }
  const taken: Record<LoadKind, string> = { ...TAKEN_AS, nominal: speaker.driverOhm === null && load.kind === 'tap' ? TAKEN_AS.nominal : '' }
  const isUnnamed = speaker.name === '' || isTakenAs(speaker)
  return { load: loads[kind], ...(isUnnamed && speaker.name !== taken[kind] ? { name: taken[kind] } : {}) }
}

type Members = Extract<SpeakerLoad, { kind: 'members' }>

/** "4, 4" or "2 x 4": the ohms of coils or drivers; a member that keeps its ohms keeps its parameters. */
export function membersFrom(now: Members) {
  return (typed: string): Members['members'] => {
    const many = /^(\d+)\s*[x×*]\s*(.+)$/i.exec(typed)
    const parts = many ? Array.from({ length: Math.min(Number(many[1]), 100) }, () => many[2]!) : typed.split(/\s*(?:[,;+]|\|\|)\s*/).filter(part => part !== '')
    if (parts.length < 2 || parts.length > MOST_MEMBERS) throw new InputError(`Two to ${MOST_MEMBERS} coils or drivers.`, 0, ['4, 4', '2 x 4'])
    return parts.map((part, k) => {
      const nominalOhm = readQuantity('resistance', part)
      const before = now.members[k]
      return before?.nominalOhm === nominalOhm ? before : { kind: 'nominal', nominalOhm }
    })
  }
}

export const membersText = ({ members }: Members): string => members.map(m => writeNumber(m.nominalOhm, 6)).join(', ')

/** What the watts printed at a tap mean. */
export const MEANS_WORDS: { value: TapMeans | 'not-stated', says: string }[] = [
  { value: 'not-stated', says: 'not stated which' }, { value: 'line-gives', says: 'what the line gives' }, { value: 'driver-gets', says: 'what the driver gets' },
]
