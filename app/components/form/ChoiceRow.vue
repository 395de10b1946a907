<script setup lang="ts" generic="V">
import SelectButton from 'primevue/selectbutton'
import type { Choice } from './choice'

/** One of a few, side by side: the library's select button, dressed as taps of a transformer are. `before` and `after` are words beside it. */
const { label, choices, before = '', after = '' } = defineProps<{ label: string, choices: readonly Choice<V>[], before?: string, after?: string }>()
const value = defineModel<V | undefined>({ required: true })
/** As it declares what it takes for a part of another, it knows no choice. */
const optionOf = (option: unknown) => option as Choice<V>

const PARTS = {
  root: { class: 'taps' },
  pcToggleButton: { root: ({ context }: { context: { active: boolean } }) => ({ class: ['tap', { on: context.active }] }) },
}
</script>

<template>
  <div class="taps">
    <span v-if="before" class="soft small">{{ before }}</span>
    <SelectButton
      v-model="value" unstyled :pt="PARTS" :options="[...choices]" option-label="says" option-value="value" option-disabled="isOff" :allow-empty="false"
      :aria-label="label">
      <template #option="{ option }">
        <span :class="{ figure: optionOf(option).isFigure }" :aria-hidden="optionOf(option).spoken ? true : undefined">{{ optionOf(option).says }}</span>
        <span v-if="optionOf(option).spoken" class="hidden-label">{{ optionOf(option).spoken }}</span>
      </template>
    </SelectButton>
    <span v-if="after" class="soft small">{{ after }}</span>
  </div>
</template>
