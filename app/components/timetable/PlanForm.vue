<script setup lang="ts">
/** Plans one capture. Checked by the class that the route uses; a clash is named with its ways out. */
import { notTeaching, placeOf } from '~~/core/term/calendar'
import { inputKinds } from '~~/shared/inputs'
import { PlanCapture } from '~~/shared/timetable/plan-capture'
import type { ClashView, PlanChoices } from '~~/shared/timetable/views'
import { check } from '~~/shared/validate'

const props = defineProps<{ choices: PlanChoices, plan: PlanCapture }>()
const emit = defineEmits<{ close: [], planned: [id: string], change: [plan: Partial<PlanCapture>] }>()
const term = useTerm()
const toasts = useToasts()
const errors = ref<Record<string, string>>({})
const clash = ref<ClashView | null>(null)
const trouble = ref('')
const busy = ref(false)
const wordsFor = useId()

const section = computed(() => props.choices.sections.find((s) => s.id === props.plan.sectionId))
const room = computed(() => props.choices.rooms.find((r) => r.id === props.plan.roomId))
const when = computed(() => {
  if (!term.view || !/^\d{4}-\d\d-\d\d$/.test(props.plan.date)) return ''
  const { week } = placeOf(term.view.term, props.plan.date)
  const off = notTeaching(term.view.term, props.plan.date)
  return `${dateWords(props.plan.date)}${week ? `, ${week.number ? `week ${week.number}` : week.label}` : ''}${off ? ` · ${off}: no ordinary teaching` : ''}`
})

function change(part: Partial<PlanCapture>) {
  emit('change', part)
  for (const key of Object.keys(part)) delete errors.value[key]
  clash.value = null
}

function chooseSection(id: string) {
  const found = props.choices.sections.find((s) => s.id === id)
  change({ sectionId: id, ...(found?.presenterIds[0] ? { presenterId: found.presenterIds[0] } : {}) })
}

function chooseRoom(id: string) {
  const found = props.choices.rooms.find((r) => r.id === id)
  change({ roomId: id, inputs: props.plan.inputs.filter((i) => found?.inputs.includes(i)) })
}

const toggle = (input: typeof inputKinds[number]) =>
  change({ inputs: props.plan.inputs.includes(input) ? props.plan.inputs.filter((i) => i !== input) : [...props.plan.inputs, input] })

async function save() {
  const found = await check(PlanCapture, props.plan)
  errors.value = 'errors' in found ? found.errors : {}
  trouble.value = ''
  if ('errors' in found) return void nextTick(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus())
  busy.value = true
  try {
    const { id, warnings } = await api<{ id: string, warnings: string[] }>('/api/captures', { method: 'POST', body: { ...props.plan } })
    const undo = async () => {
      await api(`/api/captures/${id}/cancel`, { method: 'POST' }).catch((error: unknown) => toasts.show(sentenceOf(error)))
    }
    toasts.show([`Planned ${section.value?.code}, ${when.value.split(' · ')[0]}, ${props.plan.start}.`, ...warnings].join(' '), { label: 'Undo', run: undo })
    emit('planned', id)
  } catch (error) {
    if (error instanceof ApiError && error.status === 409) {
      clash.value = error.data as unknown as ClashView
      void nextTick(() => document.getElementById(wordsFor)?.parentElement?.scrollIntoView({ block: 'nearest' }))
    } else if (error instanceof ApiError && Object.keys(error.fields).length) errors.value = error.fields
    else trouble.value = sentenceOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BenchPanel title="Plan a capture" @close="emit('close')">
    <form id="plan-form" class="flex flex-col gap-3" novalidate @submit.prevent="save">
      <p class="quiet">Drag on the board to set the time.</p>
      <FormField v-slot="f" label="Section" :error="errors.sectionId" :note="section ? `${section.people} on the class list` : ''">
        <select v-bind="f" class="field" :value="plan.sectionId" @change="chooseSection(($event.target as HTMLSelectElement).value)">
          <option value="" disabled>Choose…</option>
          <option v-for="s in choices.sections" :key="s.id" :value="s.id">{{ s.code }} {{ s.title }}</option>
        </select>
      </FormField>
      <div class="grid grid-cols-2 gap-3">
        <FormField v-slot="f" label="Presenter" :error="errors.presenterId">
          <select v-bind="f" class="field" :value="plan.presenterId" @change="change({ presenterId: ($event.target as HTMLSelectElement).value })">
            <option value="" disabled>Choose…</option>
            <option v-for="p in choices.presenters" :key="p.id" :value="p.id">{{ p.name }}</option>
          </select>
        </FormField>
        <FormField v-slot="f" label="Room" :error="errors.roomId" :note="room && section && room.seats < section.people ? `seats ${room.seats}, fewer than the class list` : ''">
          <select v-bind="f" class="field" :value="plan.roomId" @change="chooseRoom(($event.target as HTMLSelectElement).value)">
            <option v-for="r in choices.rooms" :key="r.id" :value="r.id">{{ r.name }} ({{ r.seats }})</option>
          </select>
        </FormField>
      </div>
      <div class="grid grid-cols-[1.4fr_1fr_1fr] gap-3">
        <FormField v-slot="f" label="Date" :error="errors.date">
          <input v-bind="f" type="date" class="field" :value="plan.date" @input="change({ date: ($event.target as HTMLInputElement).value })">
        </FormField>
        <FormField v-slot="f" label="Starts" :error="errors.start">
          <input v-bind="f" type="text" inputmode="numeric" placeholder="11:00" class="field num" :value="plan.start" @input="change({ start: ($event.target as HTMLInputElement).value.trim() })">
        </FormField>
        <FormField v-slot="f" label="Minutes" :error="errors.minutes">
          <input v-bind="f" type="number" min="2" max="480" class="field num" :value="plan.minutes" @input="change({ minutes: Number(($event.target as HTMLInputElement).value) })">
        </FormField>
      </div>
      <p v-if="when" class="quiet -mt-1" :class="{ 'text-ochre-ink!': when.includes('·') }">{{ when }}</p>
      <fieldset>
        <legend class="label">Take in</legend>
        <div class="flex flex-wrap gap-1.5">
          <template v-for="input in inputKinds" :key="input">
            <button v-if="room?.inputs.includes(input)" type="button" class="btn btn-small" :class="{ 'border-pool! bg-pool-wash!': plan.inputs.includes(input) }" :aria-pressed="plan.inputs.includes(input)" @click="toggle(input)">
              <span v-if="plan.inputs.includes(input)" aria-hidden="true">✓</span>{{ input }}
            </button>
            <span v-else-if="room" class="inline-flex min-h-[27px] items-center rounded-[5px] border border-dashed border-edge px-2 text-[13px] text-slate">no {{ input }} here</span>
          </template>
        </div>
        <p v-if="errors.inputs" class="wrong" role="alert">{{ errors.inputs }}</p>
      </fieldset>
      <FormField v-slot="f" label="Topic (may stay empty)" :error="errors.topic" :note="plan.topic ? '' : 'Without one it is named by its lecture number.'">
        <input v-bind="f" type="text" maxlength="160" class="field" :value="plan.topic" @input="change({ topic: ($event.target as HTMLInputElement).value })">
      </FormField>
      <section v-if="clash" :aria-labelledby="wordsFor" role="alert" class="rounded-md bg-ember-wash p-3">
        <h3 :id="wordsFor" class="font-semibold text-ember-ink"><span aria-hidden="true">▲ </span>{{ clash.sentence }}</h3>
        <p v-if="clash.nearestStart || clash.freeRooms.length" class="mt-2 mb-1">Ways out:</p>
        <div class="flex flex-wrap gap-1.5">
          <button v-if="clash.nearestStart" type="button" class="btn btn-small" @click="change({ start: clash.nearestStart! })">{{ clash.nearestStart }} in the same room</button>
          <button v-for="r in clash.freeRooms" :key="r.id" type="button" class="btn btn-small" @click="change({ roomId: r.id })">{{ r.name }}, {{ r.seats }} seats</button>
        </div>
      </section>
      <p v-if="trouble" role="alert" class="wrong">{{ trouble }}</p>
    </form>
    <template #foot>
      <div class="flex gap-2">
        <button type="submit" form="plan-form" class="btn btn-main" :disabled="busy">{{ busy ? 'Planning…' : 'Plan this capture' }}</button>
        <button type="button" class="btn" @click="emit('close')">Close</button>
      </div>
    </template>
  </BenchPanel>
</template>
