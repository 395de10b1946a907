<script setup lang="ts">
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef } from 'vue'
import { boxOf, type Place } from '#core/room/outline'
import { fittedTo, scaledByTwo } from '#core/room/planPicture'
import type { Space } from '#core/job/schema'
import { InputError } from '#core/quantity/inputError'
import { writeLength } from '#core/quantity/units'
import { api, ApiError } from '~/api/client'
import ChoiceRow from '~/components/form/ChoiceRow.vue'
import TextEntry from '~/components/form/TextEntry.vue'
import { lengthOf, within } from '~/components/form/readers'
import { useUnits } from '~/composables/useUnits'
import type { OpenedPdf } from '~/photos/pdfPage'
import { scaleDown } from '~/photos/scaleDown'
import { useSpaceStore } from './spaceStore'

/** The building's own plan under the floor: a picture, scaled by two points and a length, moved, turned, faded. */
const { space } = defineProps<{ space: Space }>()
const emit = defineEmits<{ set: [to: Partial<Pick<Space, 'picture'>>] }>()
const at = useSpaceStore()
const { units } = useUnits()
const field = useTemplateRef<HTMLInputElement>('field')
const problem = ref('')
const isTaking = ref(false)
const points = ref<Place[]>([])
const picture = computed(() => space.picture)
const FADES = [{ value: 0.2, says: 'faint' }, { value: 0.45, says: 'half' }, { value: 0.8, says: 'strong' }]

/** A PDF of several pages, until one of them is chosen. */
const pdf = shallowRef<OpenedPdf | null>(null)
onBeforeUnmount(() => pdf.value?.close())

async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  letGoOfPdf()
  const isPdf = file.type === 'application/pdf' || /\.pdf$/i.test(file.name)
  await taking(isPdf ? 'This PDF cannot be read: it is broken, or asks for a password. A page saved as PNG or JPEG can be taken.' : NO_PICTURE, async () => {
    if (!isPdf) return keep(file)
    const opened = await (await import('~/photos/pdfPage')).openPdf(file)
    pdf.value = opened
    if (opened.pages === 1) await keepPage(1)
  })
}
const NO_PICTURE = 'This is no picture that the browser can read: PNG, JPEG, or a page of a PDF.'
const choosePage = (page: number) => taking(`Page ${page} cannot be drawn.`, () => keepPage(page))
async function keepPage(page: number): Promise<void> {
  await keep(await pdf.value!.pageAsPicture(page))
  letGoOfPdf()
}
function pageOf(pages: number, typed: string): number {
  const page = Number(typed)
  if (!Number.isInteger(page) || page < 1 || page > pages) throw new InputError(`A page from 1 to ${pages}.`, 0, [])
  return page
}
function letGoOfPdf(): void {
  pdf.value?.close()
  pdf.value = null
}
async function keep(file: Blob): Promise<void> {
  const { base64, widthPx, heightPx } = await scaleDown(file)
  const { hash } = await api<{ hash: string }>('/photos', { method: 'POST', body: { base64 } })
  emit('set', { picture: { hash, fade: 0.45, ...fittedTo(boxOf(space.outline), { widthPx, heightPx }) } })
}
async function taking(unread: string, run: () => Promise<void>): Promise<void> {
  problem.value = ''
  isTaking.value = true
  try {
    await run()
  }
  catch (error) {
    problem.value = error instanceof ApiError ? `${error.message} The picture is not taken: choose it again then.` : unread
  }
  finally {
    isTaking.value = false
  }
}
function change(to: Partial<NonNullable<Space['picture']>>): void {
  if (picture.value) emit('set', { picture: { ...picture.value, ...to } })
}
/** The cross on the floor is where a point is taken. */
function point(): void {
  if (!at.cross) {
    problem.value = 'Press the floor first, where the point is: the cross marks it.'
    return
  }
  problem.value = ''
  points.value = points.value.length === 2 ? [at.cross] : [...points.value, at.cross]
}
function scale(lengthM: number): void {
  const [first, second] = points.value
  if (!picture.value || !first || !second) return
  if (Math.hypot(first.xM - second.xM, first.yM - second.yM) < 0.05 || lengthM <= 0) {
    problem.value = 'Two points that lie apart, and a length that is more than nothing.'
    return
  }
  emit('set', { picture: scaledByTwo(picture.value, first, second, lengthM) })
  points.value = []
}
const move = (xM: number, yM: number) => picture.value && change({ xM: picture.value.xM + xM, yM: picture.value.yM + yM })
</script>

<template>
  <div class="picture" data-form>
    <p><button
      class="act" type="button" :disabled="isTaking"
      @click="field?.click()">{{ isTaking ? 'taking it …' : picture ? 'another picture' : 'a picture or PDF of the plan' }}</button>
      <input
        ref="field" class="hidden-label" type="file" accept="image/png,image/jpeg,application/pdf" tabindex="-1" aria-label="Picture of the building’s plan"
        @change="take">
      <button v-if="picture" class="act" type="button" @click="emit('set', { picture: null })">take it away</button></p>
    <p v-if="pdf && pdf.pages > 1" class="moves"><TextEntry
      :label="`Which of its ${pdf.pages} pages`" text="" :read="t => pageOf(pdf!.pages, t)" hint="1" @commit="choosePage" />
      <button class="act" type="button" @click="letGoOfPdf">none of them</button></p>
    <template v-if="picture">
      <ChoiceRow
        label="How strong" before="shown" :choices="FADES"
        :model-value="picture.fade" @update:model-value="$event !== undefined && change({ fade: $event })" />
      <div class="moves" role="group" aria-label="Move the picture">
        <span class="soft small">move</span>
        <button class="tap" type="button" @click="move(-0.5, 0)">left</button><button class="tap" type="button" @click="move(0.5, 0)">right</button>
        <button class="tap" type="button" @click="move(0, -0.5)">up</button><button class="tap" type="button" @click="move(0, 0.5)">down</button>
      </div>
      <TextEntry
        label="Turned by" :text="`${picture.turnDeg}°`" :read="t => within(-360, 360, 'A turn', '°')(t.replace('°', ''))"
        @commit="change({ turnDeg: $event })" />
      <p class="soft small">Its scale: press the floor at two points whose distance you know, and take each.</p>
      <p class="moves"><button
        class="tap" type="button"
        @click="point">{{ points.length === 1 ? 'second point at the cross' : 'first point at the cross' }}</button>
        <span
          v-if="points.length === 2"
          class="soft small">{{ writeLength(Math.hypot(points[0]!.xM - points[1]!.xM, points[0]!.yM - points[1]!.yM), units) }} now</span></p>
      <TextEntry v-if="points.length === 2" label="Between them it is" text="" :read="lengthOf(units)" hint="6 m" @commit="$event !== null && scale($event)" />
    </template>
    <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.picture { display: grid; gap: 8px; }
.moves { display: flex; flex-wrap: wrap; gap: 5px; align-items: center; }
</style>
