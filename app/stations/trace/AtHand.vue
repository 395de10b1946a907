<script setup lang="ts">
import { TOOLS, type Tool } from '#core/trace/next/minutes'
import { minutesSay, TOOL_WORDS } from '#core/trace/words'
import { useTraceStore } from './suspects'

/** Other tests, those that could not be done, and the tools that there are. */
defineProps<{ others: readonly { k: number, title: string, minutes: number }[] }>()
defineEmits<{ choose: [k: number] }>()
const trace = useTraceStore()
/** Stays as it was while the test changes: it is whose this is a part of that keeps it. */
const open = defineModel<boolean>('open', { required: true })

function toggle(tool: Tool): void {
  trace.without = trace.without.includes(tool) ? trace.without.filter(t => t !== tool) : [...trace.without, tool]
}
</script>

<template>
  <details class="more" :open @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary class="small">Other tests, and what is at hand</summary>
    <ul class="others">
      <li v-for="other in others" :key="other.title">
        <button class="other" type="button" @click="$emit('choose', other.k)"><span class="title">{{ other.title }}</span>
          <span class="soft small">{{ minutesSay(other.minutes) }}</span></button>
      </li>
    </ul>
    <p v-if="trace.cannot.length > 0"><button class="act" type="button" @click="trace.cannot = []">{{ trace.cannot.length === 1
      ? 'The test that could not be done' : `The ${trace.cannot.length} tests that could not be done` }} can be done after all</button></p>
    <fieldset class="tools"><legend class="small">At hand</legend>
      <label v-for="tool in TOOLS" :key="tool">
        <input type="checkbox" :checked="!trace.without.includes(tool)" @change="toggle(tool)"> {{ TOOL_WORDS[tool] }}
      </label>
    </fieldset>
  </details>
</template>

<style scoped>
.more { font-size: 14px; }
.more p { margin: 5px 0; }
.others { list-style: none; margin: 4px 0; padding: 0; }
.other { width: 100%; min-height: 34px; display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 12px; align-items: baseline; padding: 5px 0;
  text-align: left; background: none; border: 0; border-bottom: 1px solid var(--rule); color: var(--ink); line-height: 1.3; }
.other .title { text-decoration: underline; text-underline-offset: 3px; }
.other .small { white-space: nowrap; }
@media (max-width: 640px), (pointer: coarse) { .other { min-height: 44px; padding: 10px 0; } }
.tools { border: 0; padding: 4px 0 0; margin: 0; display: flex; flex-wrap: wrap; gap: 4px 16px; }
.tools legend { padding: 0; }
.tools label { display: inline-flex; align-items: center; gap: 6px; min-height: 32px; }
.act { text-decoration: underline; text-underline-offset: 3px; color: var(--ink); min-height: 32px; text-align: left; }
</style>
