<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import Button from 'primevue/button'
import type { Speaker } from '#core/job/schema'
import type { WalkFound, WalkKind } from '#core/trace/next/test'
import { WALKS } from '#core/trace/next/walk'
import { foundSays } from '#core/trace/words'

/**
 * What a walk along the line found, by ear or with a pulse: those that are not as they should be are pressed, all others are. `leftOut`: whom it has not
 * before it, and why, in words.
 */
const { kind, speakers, leftOut, isHeld } = defineProps<{ kind: WalkKind, speakers: readonly Pick<Speaker, 'id' | 'label'>[], leftOut: string, isHeld: boolean }>()
const emit = defineEmits<{ record: [upToId: string, odd: ReadonlyMap<string, WalkFound>] }>()

const isHeardBy = computed(() => kind === 'walk')
const ways = computed(() => WALKS[kind].ways.slice(1))
const odd = ref(new Map<string, WalkFound>())
/** The one whose sound is being said. */
const asked = ref<string | null>(null)
const upTo = ref('')
watch(() => speakers.map(s => s.id).join(), () => {
  odd.value = new Map([...odd.value].filter(([id]) => speakers.some(s => s.id === id)))
  asked.value = null
  if (!speakers.some(s => s.id === upTo.value)) upTo.value = speakers.at(-1)?.id ?? ''
}, { immediate: true })

const passed = computed(() => speakers.slice(0, speakers.findIndex(s => s.id === upTo.value) + 1))
function press(id: string): void {
  if (odd.value.delete(id)) asked.value = null
  else asked.value = asked.value === id ? null : id
}
function say(is: WalkFound): void {
  if (asked.value !== null) odd.value.set(asked.value, is)
  asked.value = null
}
const asItShould = computed(() => isHeardBy.value ? 'play' : 'the right way round')
const says = computed(() => {
  const wrong = passed.value.filter(s => odd.value.has(s.id)).length
  return wrong === 0 ? `Record: all ${passed.value.length} ${asItShould.value}` : `Record: ${wrong} not so, ${passed.value.length - wrong} ${asItShould.value}`
})
const labelOf = (id: string) => speakers.find(s => s.id === id)?.label ?? ''
</script>

<template>
  <div data-form class="walk">
    <p class="small">{{ isHeardBy ? 'Press those that do not play as they should. All others count as heard, and playing.'
      : 'Press those that the tester shows the other way round, or that it tells nothing of. All others count as passed, and right.' }} {{ leftOut }}</p>
    <div class="passed" role="group" aria-label="Speakers along the line">
      <button
        v-for="s in passed" :key="s.id" type="button" class="tap" :class="{ on: asked === s.id, odd: odd.has(s.id) }" :aria-pressed="odd.has(s.id)"
        @click="press(s.id)">{{ s.label }}<span v-if="odd.has(s.id)"> {{ foundSays(odd.get(s.id)!) }}</span></button>
    </div>
    <div v-if="asked !== null" class="passed" role="group" :aria-label="isHeardBy ? `How ${labelOf(asked)} sounds` : `Which way round ${labelOf(asked)} is`">
      <span class="small">{{ labelOf(asked) }} is</span>
      <button v-for="is in ways" :key="is" type="button" class="tap" @click="say(is)">{{ foundSays(is) }}</button>
    </div>
    <div class="deeds">
      <Button size="small" :label="says" :disabled="isHeld || passed.length === 0" @click="emit('record', upTo, odd)" />
      <label class="small">{{ isHeardBy ? 'heard' : 'passed' }} as far as <select
        v-model="upTo" :aria-label="isHeardBy ? 'Heard as far as'
        : 'Passed as far as'"><option v-for="s in speakers" :key="s.id" :value="s.id">{{
        s.label }}</option></select></label>
    </div>
  </div>
</template>

<style scoped>
.walk { display: grid; gap: 8px; }
.passed { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; }
.passed .tap { min-height: 44px; min-width: 48px; }
.passed .tap span { margin-left: 5px; }
.passed .odd { border-color: var(--stop); color: var(--stop); font-weight: 600; }
.deeds { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: center; }
select { font: inherit; color: inherit; background: var(--paper-raised); border: 1px solid var(--ink); padding: 4px 6px; min-height: 40px; }
</style>
