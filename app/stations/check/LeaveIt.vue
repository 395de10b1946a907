<script setup lang="ts">
import { ref } from 'vue'
import InputText from 'primevue/inputtext'
import Button from '~/components/form/laterButton'
import type { JudgedReading } from '#core/check/proof'
import { newId } from '~/api/ids'
import { useJobStore } from '~/stores/job'

/** What reads wrong may be left as it is: that is a decision, with its reason, and it stays on the list of what was left. */
const { judged } = defineProps<{ judged: JudgedReading }>()
const store = useJobStore()
const reason = ref('')
const isOpen = ref(false)

function leave(): void {
  const { outputId, nodeId, kind } = judged.reading
  const now = new Date().toISOString()
  // A clock that went back since does not leave the reading after its leaving.
  const at = now > judged.reading.at ? now : judged.reading.at
  const leaving = { id: newId(), at, outputId, nodeId, kind, reason: reason.value.trim(), who: null, withdrawn: false }
  store.edit({ kind: 'leaving.add', leaving })
}
const takeBack = (leavingId: string) => store.edit({ kind: 'leaving.withdraw', leavingId, withdrawn: true })
</script>

<template>
  <div class="leave">
    <p v-if="judged.left" class="soft">Found and left: {{ judged.left.reason }}
      <button class="act" type="button" @click="takeBack(judged.left.id)">take that back</button></p>
    <template v-else>
      <button class="act" type="button" :aria-expanded="isOpen" @click="isOpen = !isOpen">leave it as it is</button>
      <form v-if="isOpen" class="why" @submit.prevent="reason.trim() !== '' && leave()">
        <InputText
v-model="reason" size="small" aria-label="Why it is left as it is" placeholder="why: it stays on the list of what was left"
          maxlength="500" />
        <Button type="submit" label="Leave it" :disabled="reason.trim() === ''" />
      </form>
    </template>
  </div>
</template>

<style scoped>
.why { display: flex; flex-wrap: wrap; gap: 8px; padding-top: 6px; }
.why > :first-child { flex: 1 1 200px; }
</style>
