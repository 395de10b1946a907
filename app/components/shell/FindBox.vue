<script setup lang="ts" generic="P extends { says: string }">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { keysShown, runAction, type Action, type ActionTarget } from '~/composables/action'
import { findActions } from '~/composables/findAction'
import KeyCap from '~/components/KeyCap.vue'
import { focused } from '~/composables/elements'

/** One field for whatever is looked for: a place by its words, or anything that can be done by a few letters of what it does. What cannot be done says why. */
const { actions, target = null, places } = defineProps<{
  actions: readonly Action[]
  target?: ActionTarget | null
  places?: (words: string) => readonly P[]
}>()
const emit = defineEmits<{ place: [place: P] }>()
const open = defineModel<boolean>('open', { required: true })

const MOST_PLACES = 8
const asks = computed(() => places === undefined ? 'What is to be done' : 'A place, or what is to be done')
const words = ref('')
const at = ref(0)
const box = useTemplateRef<HTMLElement>('box')
let before: HTMLElement | null = null

type Entry = { place: P, says: string } | { action: Action, says: string, why: string | null }
/** Arrows and digits are hands on the sheet, nothing to be chosen from a list; nor is this field itself. */
const isOffered = ({ keys }: Action) => !keys.some(key => /^(Shift\+|Ctrl\+)?(Arrow|Page)|^[\d/]$/.test(key))
const found = computed((): Entry[] => {
  if (!open.value) return []
  const named = (places?.(words.value) ?? []).slice(0, MOST_PLACES).map(place => ({ place, says: place.says }))
  return [...named, ...findActions(actions.filter(isOffered), words.value, target).map(({ action, why }) => ({ action, says: action.says, why }))]
})
watch(words, () => { at.value = 0 })
watch(open, async (isOpen) => {
  if (!isOpen) return
  before = focused()
  words.value = ''
  at.value = 0
  await nextTick()
  box.value?.querySelector('input')?.focus()
})

function close(): void {
  open.value = false
  before?.focus({ preventScroll: true })
}
async function choose(entry: Entry | undefined): Promise<void> {
  if (!entry || whyOf(entry) !== null) return
  close()
  await nextTick()
  if ('place' in entry) emit('place', entry.place)
  else runAction(entry.action)
}
async function step(by: number): Promise<void> {
  at.value = Math.max(0, Math.min(found.value.length - 1, at.value + by))
  await nextTick()
  box.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' })
}
const whyOf = (entry: Entry) => 'why' in entry ? entry.why : null
const isApart = (k: number) => 'action' in found.value[k]! && k > 0 && 'place' in found.value[k - 1]!
</script>

<template>
  <div v-if="open" class="over" @pointerdown.self="close()">
    <div ref="box" class="find-box" role="dialog" :aria-label="asks" @keydown.esc.stop="close()">
      <input
        v-model="words" class="words" type="text" role="combobox" aria-expanded="true" aria-controls="found"
        :aria-activedescendant="found.length > 0 ? `found-${at}` : undefined"
        :aria-label="asks" :placeholder="asks" maxlength="80" autocomplete="off" spellcheck="false"
        @keydown.down.prevent="step(1)" @keydown.up.prevent="step(-1)" @keydown.page-down.prevent="step(8)" @keydown.page-up.prevent="step(-8)"
        @keydown.enter.prevent="choose(found[at])" @keydown.tab.prevent="step($event.shiftKey ? -1 : 1)">
      <ul id="found" class="found" role="listbox" aria-label="What was found">
        <li
          v-for="(entry, k) in found" :id="`found-${k}`" :key="k" class="one" :class="{ on: k === at, apart: isApart(k), cannot: whyOf(entry) !== null }"
          role="option" :aria-selected="k === at" :aria-disabled="whyOf(entry) !== null" @click="choose(entry)">
          <span class="says">{{ entry.says }}<span v-if="whyOf(entry)" class="why">{{ whyOf(entry) }}</span></span>
          <KeyCap v-if="'action' in entry && entry.action.keys.length > 0" :of="keysShown(entry.action)[0]!" />
        </li>
        <li v-if="found.length === 0" class="none soft">Nothing of that name, and nothing that is done so. Fewer letters find more.</li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.over { position: fixed; inset: 0; z-index: 1200; background: color-mix(in srgb, var(--ink) 14%, transparent); }
.find-box { position: absolute; top: 92px; left: 50%; translate: -50%; width: min(560px, calc(100vw - 24px)); padding: 10px;
  background: var(--paper); border: 1.5px solid var(--ink); display: grid; gap: 8px; grid-template-rows: auto minmax(0, 1fr); max-height: calc(100vh - 120px); }
.words { width: 100%; border: 1px solid var(--rule-strong); border-radius: 2px; padding: 6px 9px; background: var(--paper-raised);
  color: var(--ink); font: inherit; }
.words:hover { border-color: var(--ink); }
.found { list-style: none; margin: 0; padding: 0; overflow-y: auto; overscroll-behavior: contain; }
.one { display: flex; justify-content: space-between; align-items: center; gap: 18px; padding: 6px 9px; cursor: pointer; border-left: 3px solid transparent; }
.one.on { background: var(--paper-raised); border-left-color: var(--ink); }
.one.apart { border-top: 1px solid var(--rule); }
.one.cannot { cursor: default; }
.one.cannot .says { color: var(--ink-soft); }
.why { display: block; font-size: 14px; color: var(--ink-soft); }
.none { padding: 8px 9px; }
@media (max-width: 760px) {
  .one :deep(.keycap) { display: none; }
  .find-box { top: 8px; max-height: calc(100dvh - 16px); }
}
@media (pointer: coarse), (max-width: 760px) { .one { min-height: 44px; } }
</style>
