<script setup lang="ts">
import { ref } from 'vue'
import InputText from 'primevue/inputtext'
import Button from '~/components/form/laterButton'

/** To leave something as it is asks for the reason: it stays on the list of what was left. */
const emit = defineEmits<{ leave: [reason: string] }>()
const isOpen = ref(false)
const reason = ref('')
function leave(): void {
  if (reason.value.trim() === '') return
  emit('leave', reason.value.trim())
  isOpen.value = false
  reason.value = ''
}
</script>

<template>
  <button class="act" type="button" :aria-expanded="isOpen" @click="isOpen = !isOpen">leave it as it is</button>
  <form v-if="isOpen" class="why" @submit.prevent="leave">
    <InputText v-model="reason" size="small" aria-label="Why it is left as it is" placeholder="why: it stays on the list of what was left" maxlength="500" />
    <Button type="submit" label="Leave it" :disabled="reason.trim() === ''" />
  </form>
</template>

<style scoped>
.why { display: flex; flex-wrap: wrap; gap: 8px; padding-top: 6px; }
.why > :first-child { flex: 1 1 200px; }
</style>
