<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { navigateTo, useHead, useRoute } from '#imports'
import InputText from 'primevue/inputtext'
import Button from '~/components/form/laterButton'
import { codeOfAddress } from '#core/door/codeAddress'
import { MOST_NAME } from '#core/door/door'
import AppHeader from '~/components/shell/AppHeader.vue'
import { useAttempt } from '~/composables/useAttempt'
import { useTheme } from '~/composables/useTheme'
import { me } from '~/door/me'
import { useDoorStore } from '~/stores/door'
import { useOutboxStore } from '~/stores/outbox'

/** A device comes in: by the six digits that a desk shows, and the name that stands at what it does. */
const { night, toggle } = useTheme()
const door = useDoorStore()
const route = useRoute()
// What the camera read stands in the address.
const code = ref('')
watch(() => route.hash, (hash) => { code.value = codeOfAddress(hash) || code.value }, { immediate: true })
const name = ref('')
const { problem, attempt } = useAttempt()
const isAsking = ref(false)
const before = computed(() => me.value?.name ?? '')
useHead({ title: 'Come in · Plain Match' })
onMounted(() => { name.value = before.value })

async function comeIn(): Promise<void> {
  isAsking.value = true
  await attempt(async () => {
    await door.letIn({ code: code.value, name: name.value })
    void useOutboxStore().send()
    await navigateTo('/', { replace: true })
  })
  isAsking.value = false
}
</script>

<template>
  <div>
    <AppHeader title="Come in"><button class="act" type="button" :aria-pressed="night" @click="toggle">{{ night ? 'day' : 'night' }}</button></AppHeader>
    <main class="door">
      <p>This server lets in only devices that it knows. At the desk, the list of jobs has <b>phones</b>: it shows six digits.</p>
      <form novalidate @submit.prevent="comeIn">
        <label class="field"><span>The six digits</span><InputText
          v-model="code" class="code figure" inputmode="numeric" autocomplete="one-time-code" maxlength="40" /></label>
        <label class="field"><span>What this device is called</span><InputText
          v-model="name" autocomplete="nickname" :maxlength="MOST_NAME" placeholder="Anna’s phone" /></label>
        <p class="soft small">The name stands at every reading that is taken with it.</p>
        <p v-if="problem" class="error-words" role="alert">{{ problem }}</p>
        <Button type="submit" :label="isAsking ? 'Asking…' : 'Come in'" :disabled="isAsking" />
      </form>
      <p class="soft small">What waits on this device to be sent stays here, and goes out when it is in.</p>
    </main>
  </div>
</template>

<style scoped>
.door { max-width: 460px; margin: 0 auto; padding: 26px 20px 60px; display: grid; gap: 18px; }
form { display: grid; gap: 14px; justify-items: start; }
.field { display: grid; gap: 4px; width: 100%; }
.code { font-size: 30px; letter-spacing: .12em; width: 100%; }
.error-words { overflow-wrap: anywhere; }
</style>
