<script setup lang="ts">
import type { JudgedReading } from '#core/check/proof'
import { newId } from '~/api/ids'
import { whoHere } from '~/door/me'
import { useJobStore } from '~/stores/job'
import LeaveReason from './LeaveReason.vue'

/** What reads wrong may be left as it is: that is a decision, with its reason, and it stays on the list of what was left. */
const { judged } = defineProps<{ judged: JudgedReading }>()
const store = useJobStore()

function leave(reason: string): void {
  const { outputId, nodeId, kind } = judged.reading
  const now = new Date().toISOString()
  // A clock that went back since does not leave the reading after its leaving.
  const at = now > judged.reading.at ? now : judged.reading.at
  store.edit({ kind: 'leaving.add', leaving: { id: newId(), at, outputId, nodeId, kind, reason, who: whoHere(), withdrawn: false } })
}
const takeBack = (leavingId: string) => store.edit({ kind: 'leaving.withdraw', leavingId, withdrawn: true })
</script>

<template>
  <div class="leave">
    <p v-if="judged.left" class="soft">Found and left: {{ judged.left.reason }}
      <button class="act" type="button" @click="takeBack(judged.left.id)">take that back</button></p>
    <LeaveReason v-else @leave="leave" />
  </div>
</template>
