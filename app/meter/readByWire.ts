import type { Meter, MeterAnswer, MeterPlace } from '#core/meter/meters'
import { readsByWire } from '#core/meter/byWire'
import type { MeterQuantity } from '#core/meter/scpi'
import { api } from '~/api/client'

/** Which meter this device reads with; kept on it, for each bench has its own. */
const KEY = 'plain-match.meter'
export const chosenMeter = (): string | null => localStorage.getItem(KEY)
export const chooseMeter = (id: string | null): void => id === null ? localStorage.removeItem(KEY) : localStorage.setItem(KEY, id)

export const readMeters = async (): Promise<Meter[]> => (await api<{ meters: Meter[] }>('/meters')).meters
export const askMeter = (id: string, at: MeterPlace | null, quantity: MeterQuantity = 'ohm'): Promise<MeterAnswer> =>
  api<MeterAnswer>(`/meters/${id}/read`, { method: 'POST', body: { quantity, at } })

/** A reading as it stands in the field. */
export interface WireReading { text: string, meterName: string, isFourWire: boolean }
export type ByWire = WireReading | { why: string } | 'no-meter'

/** Ohms, millivolts or degrees. Four figures: more a bench meter on a ladder does not mean. */
const FIGURES = 4
export function textOf({ value }: Pick<MeterAnswer, 'value'>): string {
  const figure = (of: number) => String(Number(of.toPrecision(FIGURES)))
  switch (value.is) {
    case 'ohm': return figure(value.ohm)
    case 'volts': return figure(1000 * value.volts)
    case 'celsius': return figure(value.celsius)
    case 'open': return 'open'
    case 'over-range': return 'over its range'
  }
}

/** Reads once. What cannot be read by an ohmmeter is told before the meter is asked. @throws ApiError */
export async function readByWire(at: MeterPlace): Promise<ByWire> {
  if (!readsByWire(at.kind)) return { why: 'A bench meter by wire reads copper, with direct current: this is read otherwise.' }
  return readOnce(at)
}

/** Reads whatever lies between its leads: a unit on the bench hangs at no place of a job. @throws ApiError */
export const readBareByWire = (quantity: MeterQuantity = 'ohm'): Promise<ByWire> => readOnce(null, quantity)

async function readOnce(at: MeterPlace | null, quantity: MeterQuantity = 'ohm'): Promise<ByWire> {
  const id = chosenMeter()
  if (id === null) return 'no-meter'
  const answer = await askMeter(id, at, quantity)
  if (answer.value.is === 'over-range') return { why: 'The meter says that it is over its range.' }
  return { text: textOf(answer), meterName: answer.meterName, isFourWire: answer.fourWire }
}
