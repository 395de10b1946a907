<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import Dialog from 'primevue/dialog'
import type { Photo } from '#core/job/sections/photos/schema'
import { useJobStore } from '~/stores/job'
import { usePhotoStore } from './photoStore'
import { withdrawingPhoto } from './ticketPhotos'

/** Photos of one place, or of one repair: taken, looked at, taken off. A place shows those of its repairs, too. */
const { outputId, nodeId, label, repairId = null, step = null } = defineProps<{
  outputId: string
  nodeId: string | null
  label: string
  repairId?: string | null
  /** A step of the work on a ticket: those that were taken there, with it written under them. */
  step?: string | null
}>()
const store = usePhotoStore()
const job = useJobStore()
const field = useTemplateRef<HTMLInputElement>('field')
const shown = ref<Photo | null>(null)
onMounted(() => void store.open())

const isHere = (place: Pick<Photo, 'outputId' | 'nodeId' | 'repairId' | 'caption'>) =>
  place.outputId === outputId && place.nodeId === nodeId && (repairId === null || place.repairId === repairId) && (step === null || place.caption === step)
const photos = computed(() => store.under(outputId).filter(isHere))
const waiting = computed(() => store.waiting.filter(w => isHere(w.photo)))
const when = (at: string) => new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) await store.take(file, { outputId, nodeId, repairId, caption: step ?? '' })
}
function takeOff(photo: Photo): void {
  shown.value = null
  job.edit(withdrawingPhoto(job.id, photo.id))
}
</script>

<template>
  <section class="photos" :aria-label="`Photos of ${label}`">
    <ul v-if="photos.length + waiting.length > 0">
      <li v-for="photo in photos" :key="photo.id"><button type="button" :aria-label="`photo of ${label}, ${when(photo.at)}`" @click="shown = photo">
        <img :src="`/api/photos/${photo.hash}`" :width="photo.widthPx" :height="photo.heightPx" alt="" loading="lazy"></button></li>
      <li v-for="one in waiting" :key="one.photo.id" class="waits"><img :src="`data:image/jpeg;base64,${one.base64}`" alt="">
        <span class="small">not sent yet</span><button class="act small" type="button" @click="store.letGo(one)">take off</button></li>
    </ul>
    <p class="acts"><button class="act" type="button" :disabled="store.isFull" @click="field?.click()">take a photo</button>
      <input
        ref="field" class="hidden-label" type="file" accept="image/*" capture="environment" tabindex="-1" :aria-label="`Photo of ${label}`"
        @change="take"></p>
    <p v-if="store.isFull" class="soft small">As many photos as a job can hold: take one off before another.</p>
    <p
      v-if="store.isUnkept && store.waiting.length > 0" class="error-words"
      role="alert">This device cannot keep photos (its storage is full or closed):
      {{ store.waiting.length === 1 ? 'one lives' : `${store.waiting.length} live` }} in this
      page alone until the server has {{ store.waiting.length === 1 ? 'it' : 'them' }}. Leave it open.</p>
    <p v-if="store.problem" class="error-words" role="alert">{{ store.problem }}</p>
    <Dialog
      v-if="shown" :visible="true" modal :header="`${label}, ${when(shown.at)}`" :dismissable-mask="true"
      :style="{ width: 'min(900px, 97vw)' }" @update:visible="shown = null">
      <img class="large" :src="`/api/photos/${shown.hash}`" :alt="`${label}, ${when(shown.at)}`">
      <p><button class="act" type="button" @click="takeOff(shown)">take it off</button></p>
    </Dialog>
  </section>
</template>

<style scoped>
.photos { border-top: 1px solid var(--rule); padding-top: 6px; }
ul { list-style: none; display: flex; flex-wrap: wrap; gap: 8px; }
.photos > ul > li > button:first-child { border: 1px solid var(--rule-strong); background: none; padding: 0; cursor: pointer; }
li img { display: block; width: 96px; height: 72px; object-fit: cover; }
.waits { display: grid; border: 1px dashed var(--ink-soft); padding: 2px; }
.large { display: block; max-width: 100%; max-height: 72vh; height: auto; margin: 0 auto; }
</style>
