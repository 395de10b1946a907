<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, useTemplateRef } from 'vue'
import Button from 'primevue/button'
import { USUAL_LINE_V } from '#core/amplifier/index'
import { beginWith, hanging, type FirstLine } from '#core/hands/begin'
import type { Branch, Kind } from '#core/job/schema'
import { toOutput } from '#core/quick/toJob'
import { countOf } from '#core/quantity/write'
import { newId } from '~/api/ids'
import KeyCap from '~/components/KeyCap.vue'
import QuickError from '~/components/quick/QuickError.vue'
import QuickInput from '~/components/quick/QuickInput.vue'
import { useQuick } from '~/composables/useQuick'
import { useJobStore } from '~/stores/job'
import { asKinds } from '../pasted'
import HangingForm from './HangingForm.vue'
import TablePaste from './TablePaste.vue'
import { WAYS, type Way } from './ways'

/** A job without a line: what one begins with. */
const emit = defineEmits<{ room: [], amplifier: [], begun: [outputId: string, nodeIds: string[]] }>()
const store = useJobStore()
const spaces = computed(() => store.job?.spaces.length ?? 0)
const open = shallowRef<Way | null>(null)
const box = useTemplateRef<HTMLElement>('box')
const line = ref('')
const { shown, error } = useQuick(line)

async function take(way: Way): Promise<void> {
  if (way === 'room') return emit('room')
  if (way === 'amplifier') return emit('amplifier')
  open.value = open.value === way ? null : way
  await nextTick()
  box.value?.querySelector<HTMLElement>('.form input, .form textarea')?.focus()
}
function begin(first: FirstLine, says: readonly string[] = []): void {
  const { edit, outputId, nodeIds } = beginWith(store.opened, first, newId)
  if (!store.edit(edit)) return
  if (says.length > 0) store.say(says.join('. '))
  emit('begun', outputId, nodeIds)
}
function fromTable(branches: Branch[]): void {
  const { branches: children, said } = asKinds(branches, store.opened.kinds)
  const isOfTaps = children.some(({ node }) => node.kind === 'speaker' && node.load.kind === 'tap')
  begin({ rating: isOfTaps ? { kind: 'constant-voltage', lineV: USUAL_LINE_V, powerW: null } : { kind: 'not-known' }, children }, said)
}
function fromLine(): void {
  if (error.value || !shown.value) return
  const kinds: Kind[] = []
  const { rating, wiring } = toOutput(shown.value.line, newId, kinds)
  begin({ rating, children: wiring.children, kinds })
}
/** A digit is the way of its place in the list. */
defineExpose({ choose: (number: number) => { if (WAYS[number - 1]) void take(WAYS[number - 1]!.way) } })
</script>

<template>
  <section ref="box" class="begin" aria-label="What one begins with">
    <p v-if="spaces > 0">{{ countOf(spaces, 'space') }} planned, and no line yet. What is planned there is hung at the spaces; or begin a line here.</p>
    <p v-else>Nothing drawn yet. What do you begin with?</p>
    <ul class="ways">
      <li v-for="(w, k) in WAYS" :key="w.way">
        <button class="offer" type="button" :aria-expanded="w.hasForm ? open === w.way : undefined" @click="take(w.way)">
          <b>{{ w.says }}</b><span class="then">{{ w.then }}</span><KeyCap :of="String(k + 1)" /></button>
        <div v-if="open === w.way" class="form">
          <HangingForm v-if="w.way === 'hanging'" @hang="begin(hanging($event, newId))" />
          <TablePaste v-else-if="w.way === 'table'" :usual="{ lineV: USUAL_LINE_V, cable: null }" @hang="fromTable" />
          <template v-else-if="w.way === 'line'">
            <QuickInput v-model="line" label="How they are wired, on which amplifier" hint="12 x 5 W on 70 V 120 W" :error="error" @enter="fromLine" />
            <QuickError v-if="error && line.trim() !== ''" :error="error" @mend="line = $event" />
            <Button label="Put it in" :disabled="error !== null || line.trim() === ''" @click="fromLine" />
          </template>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.begin { padding: 34px 30px; display: grid; gap: 14px; max-width: 680px; }
.ways { list-style: none; display: grid; gap: 8px; }
.offer .then { font-size: 14.5px; }
.form { border-left: 3px solid var(--ink); margin: 8px 0 6px; padding: 4px 0 4px 14px; display: grid; gap: 10px; justify-items: start; }
.form > * { width: 100%; }
.form > :deep(.p-button) { width: auto; }
@media (max-width: 760px) { .begin { padding: 16px 14px; } }
</style>
