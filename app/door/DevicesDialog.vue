<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import Dialog from 'primevue/dialog'
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { codeAddress, fingerprintRows } from '#core/door/codeAddress'
import { CODE_MINUTES, CODE_TRIES, type Device } from '#core/door/door'
import { onLive } from '~/api/live'
import { useAttempt } from '~/composables/useAttempt'
import { useDoorStore } from '~/stores/door'
import CodePicture from './CodePicture.vue'
import { leftWords, seenWords } from './seenWords'

/** Phones and other machines: one is let in by a code, each can be taken back at once. */
const open = defineModel<boolean>('open', { required: true })
const door = useDoorStore()
const { problem, attempt } = useAttempt()
const isRead = ref(false)
const mayLetIn = ref(false)
const now = ref(Date.now())
const code = computed(() => door.code)
const leftMs = computed(() => code.value ? Date.parse(code.value.expiresAt) - now.value : 0)
const inside = computed(() => door.devices.filter(d => d.takenBackAt === null))
const gone = computed(() => door.devices.filter(d => d.takenBackAt !== null))
/** Whoever comes in by the code is in the list: then the code has done its work. */
const cameIn = ref('')
let known = new Set<string>()

async function read(): Promise<void> {
  await attempt(() => door.readDevices())
  isRead.value = true
}
async function look(): Promise<void> {
  await read()
  const fresh = inside.value.find(d => !known.has(d.id))
  if (fresh && code.value) {
    cameIn.value = fresh.name
    door.code = null
  }
  known = new Set(door.devices.map(d => d.id))
}
const show = () => attempt(async () => {
  cameIn.value = ''
  known = new Set(door.devices.map(d => d.id))
  await door.showCode(mayLetIn.value)
})
const hide = () => attempt(() => door.hideCode())
/** A device that is taken back is asked for once more: what it has not sent stays on it. */
const asked = ref('')
const takeBack = (device: Device) => attempt(async () => {
  asked.value = ''
  await door.takeBack(device.id)
})

let stop = () => {}
let tick: ReturnType<typeof setInterval> | undefined
function end(): void {
  stop()
  clearInterval(tick)
}
watch(open, (isOpen) => {
  if (!isOpen) return end()
  cameIn.value = ''
  void look()
  stop = onLive((message) => { if (message === 'devices' || message === 'gap') void look() })
  tick = setInterval(() => {
    now.value = Date.now()
    if (code.value && leftMs.value <= 0) door.code = null
  }, 1000)
}, { immediate: true })
onBeforeUnmount(end)
</script>

<template>
  <Dialog v-model:visible="open" modal header="Phones and other machines" :dismissable-mask="true" :style="{ width: 'min(760px, 97vw)' }">
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
    <p v-if="!isRead" class="soft" role="status">Reading…</p>
    <template v-else-if="door.entrance === null">
      <p><b>This server answers this machine alone.</b> To let phones in, stop it and start it with the address on which it shall listen:</p>
      <p><code>npm start -- --listen 0.0.0.0</code></p>
      <p class="soft small">It then serves HTTPS under one name that stays, and lets in only what was let in here. How a firm sets it up:
        docs/operations.md.</p>
    </template>
    <template v-else>
      <section v-if="code" class="code" aria-label="The code">
        <div>
          <ol>
            <li v-if="door.entrance.trust"><b>Once for each phone:</b> at <span class="figure address">{{ door.entrance.trust.url }}</span> it takes
              the certificate of this machine. Its fingerprint must be <span class="figure print"><span
                v-for="row in fingerprintRows(door.entrance.trust.fingerprint)" :key="row">{{ row }}</span></span></li>
            <li>Then the camera on the picture, or at <span class="figure address">{{ door.entrance.origin }}</span> the digits:</li>
          </ol>
          <p class="digits figure" aria-live="polite">{{ code.code.slice(0, 3) }} {{ code.code.slice(3) }}</p>
          <p class="soft small">For one device, {{ leftWords(leftMs) }}. {{ CODE_TRIES }} wrong tries end it.</p>
          <p><button class="act" type="button" @click="hide">hide it: it lets nobody in any more</button></p>
        </div>
        <div class="pictures">
          <figure v-if="door.entrance.trust"><CodePicture :text="door.entrance.trust.url" label="The address where a phone takes the certificate" />
            <figcaption class="small">first: the certificate</figcaption></figure>
          <figure><CodePicture :text="codeAddress(door.entrance.origin, code.code)" label="The address with the code" />
            <figcaption class="small">then: come in</figcaption></figure>
        </div>
      </section>
      <section v-else class="ask">
        <p v-if="cameIn" role="status"><b>“{{ cameIn }}” is in.</b></p>
        <Button label="Show a code" @click="show" />
        <label class="may"><Checkbox v-model="mayLetIn" binary input-id="may-let-in" /> <span>it may let others in as well (another desk)</span></label>
        <p class="soft small">A code lets one device in. It holds {{ CODE_MINUTES }} minutes.</p>
      </section>
    </template>
    <section v-if="isRead && inside.length + gone.length > 0" class="list" aria-label="Devices">
      <ul>
        <li v-for="device in inside" :key="device.id">
          <span><b>{{ device.name }}</b><span v-if="device.mayLetIn" class="soft small"> · may let others in</span><br>
            <span class="soft small">{{ seenWords(device, now) }}</span></span>
          <span v-if="asked === device.id" class="sure small">What it has not sent stays on it.
            <button class="act" type="button" @click="takeBack(device)">take it back</button>
            <button class="act" type="button" @click="asked = ''">leave it</button></span>
          <button v-else class="act" type="button" :aria-label="`take ${device.name} back`" @click="asked = device.id">take back</button>
        </li>
        <li v-for="device in gone" :key="device.id" class="gone">
          <span>{{ device.name }}<br><span class="soft small">{{ seenWords(device, now) }}</span></span></li>
      </ul>
    </section>
    <p v-else-if="isRead && door.entrance" class="soft">No device has been let in yet.</p>
  </Dialog>
</template>

<style scoped>
.code { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 10px 26px; padding-bottom: 16px; }
.code ol { padding-left: 20px; display: grid; gap: 10px; }
.address { font-weight: 600; overflow-wrap: anywhere; }
.print { display: grid; width: max-content; font-size: 13.5px; line-height: 1.5; overflow-wrap: anywhere; padding: 4px 0; }
.digits { font-size: 44px; letter-spacing: .08em; padding: 8px 0 0; line-height: 1.2; }
.pictures { display: grid; gap: 14px; align-content: start; width: 190px; }
figcaption { padding-top: 2px; }
.ask { display: grid; gap: 10px; justify-items: start; padding-bottom: 16px; }
.may { display: flex; gap: 10px; align-items: center; min-height: 32px; }
ul { list-style: none; border-top: 1px solid var(--rule); }
li { overflow-wrap: anywhere; }
.list li { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 4px 18px; align-items: center; padding: 8px 0;
  border-bottom: 1px solid var(--rule); }
.list li > :first-child { min-width: 0; flex: 1 1 240px; }
.gone { color: var(--ink-soft); }
@media (max-width: 640px) {
  .code { grid-template-columns: minmax(0, 1fr); }
  .pictures { grid-auto-flow: column; width: auto; justify-content: start; }
  .pictures figure { width: 150px; }
}
</style>
