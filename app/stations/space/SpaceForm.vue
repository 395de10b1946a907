<script setup lang="ts">
import { same } from '#core/quantity/same'
import { computed, ref } from 'vue'
import Select from '~/components/form/choiceList'
import type { Model } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import type { Space, Spot } from '#core/job/schema'
import { CEILINGS, spaceFields } from '#core/job/sections/spaces/schema'
import { giveSpace } from '#core/hands/spaceSpeakers'
import { setSpots } from '#core/hands/spaces'
import { EARS, NOISE_EXAMPLES, PEAK_SCHOOLS, SPACE_USES, spaceUse } from '#core/schools/loudness'
import { writeLength, withUnit } from '#core/quantity/units'
import { readQuantity } from '#core/quantity/read'
import { countOf } from '#core/quantity/write'
import { InputError } from '#core/quantity/inputError'
import { OVERLAPS, overlapOf } from '#core/room/coverage'
import { boxOf, type Place } from '#core/room/outline'
import { readFloor, writeFloor } from '#core/room/sides'
import { newId } from '~/api/ids'
import TextEntry from '~/components/form/TextEntry.vue'
import { textOf, within, withinOrNot } from '~/components/form/readers'
import KeyCap from '~/components/KeyCap.vue'
import GearPick from '~/components/gear/GearPick.vue'
import { useUnits } from '~/composables/useUnits'
import { useEvaluationStore } from '~/stores/evaluation'
import { useJobStore } from '~/stores/job'
import PictureForm from './PictureForm.vue'
import { useSpaceStore } from './spaceStore'

/** What a space is: its floor, its use, what hangs there; and of the places chosen, how high and where they face. */
const emit = defineEmits<{ set: [to: Partial<Omit<Space, 'id' | 'spots' | 'measured'>>], remove: [], draw: [] }>()
const store = useJobStore()
const at = useSpaceStore()
const evaluation = useEvaluationStore()
const { units } = useUnits()
const space = computed(() => at.kept!)
const isPicking = ref(false)

const CEILING_WORDS: Record<(typeof CEILINGS)[number], string> = { 'not-known': 'not stated', 'tiles': 'tiles in a grid', 'closed': 'closed: plaster, boards', 'open': 'open', 'outdoors': 'outdoors, none' }
const ceilings = CEILINGS.map(value => ({ value, label: CEILING_WORDS[value] }))
const uses = SPACE_USES.map(u => ({ value: u.id, label: u.name }))
const overlaps = OVERLAPS.map(o => ({ value: o.id, label: o.name }))
const peaks = PEAK_SCHOOLS.map(p => ({ value: p.id, label: p.db === 0 ? p.name : `${p.name}: ${p.db} dB` }))
const kinds = computed(() => store.opened.kinds.map(k => ({ value: k.id, label: k.model.name })))
const used = computed(() => store.opened.kinds.flatMap(k => k.from?.modelId ?? []))

const metres = (typed: string) => readQuantity('length', withUnit(typed, units.value))
const metresOrNot = (typed: string) => typed === '' ? null : metres(typed)
const lengthWithin = (field: keyof typeof spaceFields, what: string) => (typed: string): number => {
  const lengthM = metres(typed)
  const parsed = spaceFields[field].safeParse(lengthM)
  if (!parsed.success) throw new InputError(`The ${what} ${parsed.error.issues[0]!.message}.`, 0, [])
  return lengthM
}
const length = (m: number | null) => m === null ? '' : writeLength(m, units.value)
const floorText = computed(() => writeFloor(space.value.outline) ?? 'walls at other than right angles')
/** A floor typed anew keeps the places that lie on it; the cable comes in where it did, or at the first corner. */
const floorOf = (typed: string) => readFloor(units.value === 'imperial' && /^[\d.,\sx×*]+$/.test(typed) ? `${typed} ft` : typed)
const dB = withinOrNot(0, 150, 'A level', ' dB')
const over = withinOrNot(-20, 40, 'It', ' dB')
function percent(typed: string): number {
  return within(0, 200, 'Slack', ' %')(typed.replace('%', '').trim()) / 100
}
const box = computed(() => boxOf(space.value.outline))
const entryText = computed(() => `${length(space.value.entry.xM - box.value.fromXM)}, ${length(space.value.entry.yM - box.value.fromYM)}`)
function entryOf(typed: string): Place {
  const [x, y, ...more] = typed.split(/[,;]|\band\b/)
  if (x === undefined || y === undefined || more.length > 0) throw new InputError('Two lengths, along and across.', 0, ['0 m, 3 m'])
  return { xM: metres(x.trim()) + box.value.fromXM, yM: metres(y.trim()) + box.value.fromYM }
}

/** What the folded parts say, so that they are opened only for a change. */
const restWords = computed(() => [`ears at ${length(space.value.earsM)}`, overlapOf(space.value.overlap).name].join(', '))
const cableWords = computed(() => [space.value.rackM === null ? 'length from the rack not known' : `${length(space.value.rackM)} from the rack`, CEILING_WORDS[space.value.ceiling]]
  .filter(words => words !== 'not stated').join(', '))
/** What is lost with the space. */
const goesWith = computed(() => {
  const { spots, measured } = space.value
  const parts = [spots.length > 0 && countOf(spots.length, 'place'), measured.length > 0 && countOf(measured.length, 'measured level')].filter(Boolean)
  return parts.length === 0 ? '' : `, with its ${parts.join(' and ')}`
})
/** Lines of the job say which taps fit. */
const here = computed(() => {
  const line = evaluation.lines.find(l => l.kind === 'constant-voltage')
  return line?.kind === 'constant-voltage' ? { lineV: line.lineV } : {}
})

/** The speaker of the space; those that hang here already become it too. */
function pick({ modelId, version, body }: { modelId: string, version: number, body: Model }): void {
  isPicking.value = false
  const { job } = store
  if (!job) return
  const model = body as SpeakerModel
  const lineVOf = (nodeId: string) => evaluation.lines.find(l => l.kind === 'constant-voltage' && l.speakers.some(s => s.id === nodeId))?.lineV ?? null
  if (store.edit(giveSpace(job, space.value, { modelId, version, model }, lineVOf, newId))) store.say(`${model.name} in ${space.value.name}`)
}

const heights = computed(() => new Set(at.spots.map(s => s.heightM)))
const height = computed(() => heights.value.size === 1 ? length([...heights.value][0]!) : '')
const aim = computed(() => {
  const [first] = at.spots
  if (!first || at.spots.some(s => !same(s.aim, first.aim))) return ''
  return first.aim === null ? 'down' : `${first.aim.turnDeg}°, ${first.aim.tiltDeg}° down`
})
function aimOf(typed: string): Spot['aim'] {
  if (/^\s*(down|straight down)?\s*$/i.test(typed)) return null
  const [turn, tilt] = typed.replace(/°|down/gi, '').split(/[,;]/).map(Number)
  if (turn === undefined || Number.isNaN(turn) || turn < -360 || turn > 360) throw new InputError('Where it faces, in degrees from the plan’s right towards its foot, and how far down.', 0, ['90, 20', 'down'])
  if (tilt !== undefined && !(tilt >= -90 && tilt <= 90)) throw new InputError('Tilt lies between −90° and 90°.', 0, ['90, 20'])
  return { turnDeg: turn, tiltDeg: tilt ?? 0 }
}
const setChosen = (to: Partial<Pick<Spot, 'heightM' | 'aim'>>) => store.edit(setSpots(space.value, [...at.chosen], to))
</script>

<template>
  <form class="form space-form" @submit.prevent>
    <TextEntry label="Space" :text="space.name" :read="textOf(spaceFields.name, 'name')" @commit="emit('set', { name: $event })" />
    <div class="two">
      <TextEntry label="Floor" :text="floorText" :read="floorOf" hint="18 x 9 m" @commit="emit('set', { outline: $event })" />
      <TextEntry
        label="Height of the ceiling" :text="length(space.heightM)" :read="lengthWithin('heightM', 'height')"
        @commit="emit('set', { heightM: $event })" />
    </div>
    <p class="soft small note"><span class="figure">18 x 9 m</span>, or its walls with the turns: <span
      class="figure">12 right 4 right 3 left 5 right 9 right 9</span>. <button
      class="act" type="button" @click="emit('draw')">or draw it on a grid <KeyCap of="D" /></button></p>
    <label class="field">What it is for
      <Select
        :model-value="space.use" aria-label="what it is for" :options="uses" option-label="label" option-value="value" size="small"
        @update:model-value="emit('set', { use: $event })" />
      <span class="soft small">{{ spaceUse(space.use).says }}</span></label>
    <TextEntry
      label="Noise, system off" :text="space.noiseDb === null ? '' : `${space.noiseDb} dB`" :read="dB" hint="not known"
      @commit="emit('set', { noiseDb: $event })" />
    <div class="taps" aria-label="about as loud as">
      <button
        v-for="n in NOISE_EXAMPLES" :key="n.says" type="button" class="tap" :class="{ on: space.noiseDb === n.db }" :aria-pressed="space.noiseDb === n.db"
        @click="emit('set', { noiseDb: n.db })">{{ n.says }} {{ n.db }}</button>
    </div>
    <p class="soft small note">About; a meter in the room decides.</p>

    <fieldset class="part">
      <legend class="soft small">The speaker</legend>
      <Select
        v-if="kinds.length > 0" aria-label="the speaker of this space" :model-value="space.kindId" :options="kinds" option-label="label"
        option-value="value" size="small"
        placeholder="not chosen yet" @update:model-value="emit('set', { kindId: $event, tapW: null })" />
      <GearPick v-if="isPicking" kind="speaker" :used="used" :here="here" @pick="pick" @close="isPicking = false" />
      <button v-else class="act" type="button" @click="isPicking = true">a model of the library</button>
    </fieldset>

    <fieldset v-if="at.chosen.size > 0" class="part">
      <legend class="soft small">{{ at.chosen.size === 1 ? 'The place chosen' : `The ${at.chosen.size} places chosen` }}</legend>
      <div class="two even">
        <TextEntry label="Hangs at" :text="height" :read="metresOrNot" hint="the ceiling" @commit="setChosen({ heightM: $event })" />
        <TextEntry label="Faces" :text="aim" :read="aimOf" hint="90, 20 or down" @commit="setChosen({ aim: $event })" />
      </div>
    </fieldset>

    <details class="part">
      <summary>Listeners, level, how close <span class="soft small">{{ restWords }}</span></summary>
      <div class="more">
        <div class="two even">
          <TextEntry
            label="Storey" :text="space.floor" :read="textOf(spaceFields.floor, 'storey')" hint="ground floor" @commit="emit('set', { floor: $event })" />
          <TextEntry
            label="Above the noise" :text="space.overDb === null ? '' : `${space.overDb} dB`" :read="over" hint="as its use says"
            @commit="emit('set', { overDb: $event })" />
        </div>
        <TextEntry label="Ears above the floor" :text="length(space.earsM)" :read="lengthWithin('earsM', 'height')" @commit="emit('set', { earsM: $event })" />
        <div class="taps">
          <button
            v-for="e in EARS" :key="e.says" type="button" class="tap" :class="{ on: space.earsM === e.earsM }" :aria-pressed="space.earsM === e.earsM"
            @click="emit('set', { earsM: e.earsM })">{{ e.says }}</button>
        </div>
        <div class="two even">
          <label class="field">How close
            <Select
              :model-value="space.overlap" aria-label="how close" :options="overlaps" option-label="label" option-value="value" size="small"
              @update:model-value="emit('set', { overlap: $event })" /></label>
          <TextEntry
            label="Grid turned by" :text="`${space.turnDeg}°`" :read="t => within(-180, 180, 'A turn', '°')(t.replace('°', ''))"
            @commit="emit('set', { turnDeg: $event })" />
        </div>
        <p class="soft small">{{ overlapOf(space.overlap).says }}</p>
        <label class="field">Kept for peaks
          <Select
            :model-value="space.peaks" aria-label="kept for peaks" :options="peaks" option-label="label" option-value="value" size="small"
            @update:model-value="emit('set', { peaks: $event })" /></label>
      </div>
    </details>
    <details class="part">
      <summary>The building’s own plan <span class="soft small">{{ space.picture ? 'under the floor' : 'none' }}</span></summary>
      <div class="more"><PictureForm :space="space" @set="emit('set', $event)" /></div>
    </details>
    <details class="part">
      <summary>Cable and ceiling <span class="soft small">{{ cableWords }}</span></summary>
      <div class="more">
        <div class="two even">
          <TextEntry label="Comes in at" :text="entryText" :read="entryOf" @commit="emit('set', { entry: $event })" />
          <TextEntry label="From the rack to there" :text="length(space.rackM)" :read="metresOrNot" hint="not known" @commit="emit('set', { rackM: $event })" />
        </div>
        <div class="two even">
          <TextEntry label="Slack" :text="`${Math.round(space.slack * 100)} %`" :read="percent" @commit="emit('set', { slack: $event })" />
          <label class="field">Ceiling
            <Select
              :model-value="space.ceiling" aria-label="ceiling" :options="ceilings" option-label="label" option-value="value" size="small"
              @update:model-value="emit('set', { ceiling: $event })" /></label>
        </div>
        <TextEntry
          label="Listing that the local code asks of cable here" :text="space.cableRemark" :read="textOf(spaceFields.cableRemark, 'remark')" hint="not noted"
          @commit="emit('set', { cableRemark: $event })" />
      </div>
    </details>
    <button class="act" type="button" @click="emit('remove')">remove this space{{ goesWith }}; its speakers stay on their lines</button>
  </form>
</template>

<style scoped>
.more { display: grid; gap: 12px; padding-top: 8px; }
summary { cursor: pointer; }
.form { display: grid; grid-template-columns: minmax(0, 1fr); gap: 12px; }
.two { display: grid; grid-template-columns: minmax(0, 3fr) minmax(0, 2fr); gap: 10px; align-items: start; }
.even { grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); }
.note { margin-top: -8px; }
.taps { padding-top: 4px; }
.tap { font-weight: 400; }
.field { display: grid; gap: 2px; font-size: 13.5px; color: var(--ink-soft); min-width: 0; }
.part { border: 0; border-top: 1px solid var(--rule); margin: 0; padding: 8px 0 0; display: grid; grid-template-columns: minmax(0, 1fr); gap: 10px; }
.part .act { justify-self: start; color: var(--ink); text-decoration: underline; text-underline-offset: 3px; }
</style>
