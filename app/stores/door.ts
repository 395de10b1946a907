import { shallowRef } from 'vue'
import { defineStore } from 'pinia'
import type { Device, DoorCode, Entrance, Me } from '#core/door/door'
import { api, ApiError } from '~/api/client'
import { onLive } from '~/api/live'
import { atDoor, keepMe, whoHere } from '~/door/me'

const NAMES_KEY = 'plain-match.names'

/** Who comes in: this device itself, and, where it may let others in, all of them. */
export const useDoorStore = defineStore('door', () => {
  const mayLetIn = shallowRef(false)
  const devices = shallowRef<Device[]>([])
  const entrance = shallowRef<Entrance | null>(null)
  const code = shallowRef<DoorCode | null>(null)
  const names = shallowRef<Record<string, string>>(readNames())
  let isBegun = false

  /** Asks who this is; while the server is away, what is kept stands. */
  async function look(): Promise<void> {
    try {
      const answer = await api<Me>('/devices/me')
      keepMe(answer.device)
      mayLetIn.value = answer.mayLetIn
      await lookNames()
    }
    catch (error) {
      if (!(error instanceof ApiError)) throw error
    }
  }

  async function lookNames(): Promise<void> {
    names.value = await api<Record<string, string>>('/devices/names')
    try {
      localStorage.setItem(NAMES_KEY, JSON.stringify(names.value))
    }
    catch { /* Named by what is fetched. */ }
  }

  function begin(): void {
    if (isBegun) return
    isBegun = true
    void look()
    onLive((message) => { if (message === 'devices' || message === 'gap') void look() })
  }

  async function letIn(typed: { code: string, name: string }): Promise<void> {
    const answer = await api<Me>('/devices/let-in', { method: 'POST', body: typed })
    keepMe(answer.device)
    mayLetIn.value = answer.mayLetIn
    atDoor.value = null
    await lookNames()
  }

  async function readDevices(): Promise<void> {
    const answer = await api<{ devices: Device[], entrance: Entrance | null }>('/devices')
    devices.value = answer.devices
    entrance.value = answer.entrance
  }
  async function showCode(mayLetOthersIn: boolean): Promise<void> {
    code.value = await api<DoorCode>('/devices/code', { method: 'POST', body: { mayLetIn: mayLetOthersIn } })
  }
  /** The code is seen no more: it lets nobody in any more. */
  async function hideCode(): Promise<void> {
    if (!code.value) return
    code.value = null
    await api('/devices/code', { method: 'DELETE' })
  }
  async function takeBack(id: string): Promise<void> {
    await api(`/devices/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await readDevices()
  }

  /** Whose something is: "this device", "Anna’s phone", "the desk" for what was done at the machine that serves, or a device that nobody here knows. */
  const nameOf = (who: string | null) => who === whoHere() ? 'this device' : who === null ? 'the desk' : names.value[who] ?? 'another device'

  return { mayLetIn, devices, entrance, code, begin, look, letIn, readDevices, showCode, hideCode, takeBack, nameOf }
})

function readNames(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(NAMES_KEY) ?? '{}') as Record<string, string>
  }
  catch {
    return {}
  }
}
