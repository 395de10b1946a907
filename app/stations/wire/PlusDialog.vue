<script setup lang="ts">
import { computed } from 'vue'
import Dialog from 'primevue/dialog'
import { STRIPE_SCHOOLS } from '#core/schools/stripe'
import { DEFAULT_STRIPE } from '#core/schools/stripeIds'
import { readPair } from '#core/hands/splices'
import { writeConductor } from '#core/gear/conductor'
import { same } from '#core/quantity/same'
import type { Pair } from '#core/job/schema'
import TextEntry from '~/components/form/TextEntry.vue'
import { useJobStore } from '~/stores/job'

/** Which of a pair is plus on this job: two schools that contradict each other, and pairs that are otherwise. */
const open = defineModel<boolean>('open', { required: true })
const store = useJobStore()
const stripe = computed(() => store.opened.practice.stripe)
const exceptions = computed(() => store.opened.colourExceptions)

function choose(to: typeof STRIPE_SCHOOLS[number]['id']): void {
  store.edit({ kind: 'practice.set', was: { stripe: stripe.value }, to: { stripe: to } })
}
function set(to: Pair[]): void {
  store.edit({ kind: 'colours.set', was: exceptions.value, to })
}
function add(pair: Pair | null): void {
  if (pair) set([...exceptions.value.filter(e => !same(e, pair) && !same([e[1], e[0]], pair)), pair])
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Which of a pair is plus" :dismissable-mask="true" :style="{ width: 'min(560px, 96vw)' }">
    <div class="plus" data-form>
      <button
        v-for="school in STRIPE_SCHOOLS" :key="school.id" class="offer" :class="{ chosen: stripe === school.id }" type="button"
          :aria-pressed="stripe === school.id"
        @click="choose(school.id)"><b>{{ school.name }}</b>{{ school.id === DEFAULT_STRIPE ? ', where nothing is said' : '' }}
        <span class="then">{{ school.says }}. {{ school.suits }}.</span></button>
      <p class="soft small">What was joined stays joined: the rule says how it should be, and how it is drawn. A test proves it, never the colour.</p>
      <h3>Otherwise on this job</h3>
      <ul v-if="exceptions.length > 0"><li
        v-for="(pair, k) in exceptions"
        :key="k"><b>{{ writeConductor(pair[0]) }}</b> is plus, {{ writeConductor(pair[1]) }} minus
        <button class="act" type="button" @click="set(exceptions.filter(e => e !== pair))">take off</button></li></ul>
      <TextEntry label="A pair whose plus is otherwise, the plus first" text="" :read="readPair" hint="pink/black, pink" @commit="add" />
    </div>
  </Dialog>
</template>

<style scoped>
.plus { display: grid; gap: 10px; }
.chosen { border-width: 3px; }
ul { list-style: none; }
</style>
