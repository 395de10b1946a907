<script setup lang="ts">
import { computed, ref } from 'vue'
import { gainOf } from '#core/amplifier/index'
import { findOutput } from '#core/job/tree'
import type { LineEvaluation } from '#core/line/evaluate'
import { standsContinuousW } from '#core/line/rules/sharing'
import { boostTimes, hotCoil, HIGH_PASS_WORDS, highPassFit, limiterFor } from '#core/programme/limits'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import TextEntry from '~/components/form/TextEntry.vue'
import { quantityOf, quantityOrNot, within, withinOrNot } from '~/components/form/readers'
import { useJobStore } from '~/stores/job'

/** Limiter, boost, high-pass and heat for the speakers of a line: sums on the back of a sheet, none of them kept. */
const { line } = defineProps<{ line: LineEvaluation }>()
const store = useJobStore()
const continuousW = ref(standsContinuousW(line) ?? 100)
const isKnown = standsContinuousW(line) !== null
const loadOhm = ref(line.upOhm ?? 8)
/** Common practice, no source: many amplifiers for loudspeakers have about so much. */
const USUAL_GAIN_DB = 32
const found = store.job ? findOutput(store.job, line.outputId) : null
const statedDb = found && gainOf(found.output.rating, found.amplifier)
const gainDb = ref(statedDb ?? USUAL_GAIN_DB)
const fullScaleDbu = ref<number | null>(null)
const boostDb = ref(6)
const tuningHz = ref<number | null>(null)
const limiter = computed(() => limiterFor({ continuousW: continuousW.value, loadOhm: loadOhm.value, gainDb: gainDb.value, fullScaleDbu: fullScaleDbu.value }))
const highPassHz = computed(() => store.job ? findOutput(store.job, line.outputId)?.amplifier.highPassHz ?? null : null)
const fit = computed(() => tuningHz.value === null || highPassHz.value === null ? null : highPassFit(highPassHz.value === 'none' ? null : highPassHz.value, tuningHz.value))
const isInPlan = computed(() => line.output.limiterV !== null && Math.abs(line.output.limiterV / limiter.value.outV - 1) < 0.005)
function setLimiter(): void {
  const limiterV = Number(limiter.value.outV.toPrecision(3))
  if (store.edit({ kind: 'output.set', outputId: line.outputId, was: { limiterV: line.output.limiterV }, to: { limiterV } })) store.say(`${line.output.label}: a limiter at ${writeQuantity(limiterV, 'V')}`)
}
const signed = (value: number, unit: string) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)} ${unit}`
const hot = hotCoil(200)
</script>

<template>
  <section class="limits">
    <h3>Limiter, boost, high-pass</h3>
    <form class="fields" data-form @submit.prevent>
      <TextEntry label="The speakers stand" :text="writeQuantity(continuousW, 'W')" :read="quantityOf('power')" @commit="continuousW = $event" />
      <TextEntry label="Into" :text="writeQuantity(loadOhm, 'Ω')" :read="quantityOf('resistance')" @commit="loadOhm = $event" />
      <TextEntry label="Gain of the amplifier, dB" :text="writeNumber(gainDb)" :read="within(0, 80, 'A gain', ' dB')" @commit="gainDb = $event" />
      <TextEntry
        label="Full scale is, dBu" :text="fullScaleDbu === null ? '' : writeNumber(fullScaleDbu)" :read="withinOrNot(-20, 40, 'Full scale', ' dBu')"
          hint="not known"
        @commit="fullScaleDbu = $event" />
      <TextEntry label="A boost of, dB" :text="writeNumber(boostDb)" :read="within(0, 30, 'A boost', ' dB')" @commit="boostDb = $event" />
      <TextEntry
        label="The box is tuned to" :text="tuningHz === null ? '' : writeQuantity(tuningHz, 'Hz')" :read="quantityOrNot('frequency')" hint="not known"
        @commit="tuningHz = $event" />
    </form>
    <p><b>Limiter</b> (rms): <span class="figure">{{ writeQuantity(limiter.outV, 'V') }}</span> at the speakers,
      <span class="figure">{{ writeQuantity(limiter.inV, 'V') }},
      {{ signed(limiter.inDbu, 'dBu') }}</span> at the input<template v-if="limiter.dbfs !== null">,
        <span class="figure">{{ signed(limiter.dbfs, 'dBFS') }}</span></template>.
      <span v-if="statedDb === null" class="soft">The gain is taken: none is stated of this amplifier.</span>
      <span v-if="!isKnown" class="soft">What they stand is taken: their ratings are not all known.</span>
      <button v-if="!isInPlan" class="act" type="button" @click="setLimiter">put this limiter into the plan</button></p>
    <p><b>Boost</b>: {{ writeNumber(boostDb) }} dB ask <span class="figure">{{ writeNumber(boostTimes(boostDb)) }} ×</span> the power in its band:
      {{ writeQuantity(continuousW * boostTimes(boostDb), 'W') }} where {{ writeQuantity(continuousW, 'W') }} were enough.</p>
    <p><b>High-pass</b>: {{ fit !== null ? HIGH_PASS_WORDS[fit] : tuningHz === null
      ? 'at the tuning of a vented box or a little below; its tuning is not known.'
      : 'where it stands is not stated at the amplifier.' }}</p>
    <p class="soft small">A coil that is 200 K hotter has {{ writeNumber(hot.times) }} times the resistance: {{ writeNumber(-hot.lossDb) }} dB are
      lost, and more power
      heats it more.</p>
  </section>
</template>

<style scoped>
.limits { display: grid; gap: 6px; border-top: 1px solid var(--rule); padding-top: 10px; margin-top: 10px; }
.fields { display: grid; grid-template-columns: repeat(auto-fit, minmax(150px, 1fr)); gap: 10px; align-items: start; padding-bottom: 4px; }
</style>
