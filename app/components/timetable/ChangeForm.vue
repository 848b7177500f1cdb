<script setup lang="ts">
/** Changes a capture that is still to come: this one, this and later, or all; date by date before it is saved. */
import { useDebounceFn } from '@vueuse/core'
import { wallOf, weekdayNames, weekdayOf } from '~~/core/term/calendar'
import type { WayOut } from '~~/core/timetable/ways-out'
import { ChangeCaptures } from '~~/shared/timetable/change-captures'
import type { CaptureDetails, ChangeLine, ChangePreview, Edited, PlanChoices } from '~~/shared/timetable/views'
import { check } from '~~/shared/validate'

/** What a drag on the board proposes. */
export interface Proposed { date?: string, start?: string, minutes?: number, roomId?: string }

const props = defineProps<{ capture: CaptureDetails, choices: PlanChoices, proposed?: Proposed }>()
const emit = defineEmits<{ close: [], changed: [] }>()
const me = useMe()
const edits = useEdits()
const toasts = useToasts()
const wall = wallOf(me.zone, props.capture.start)
const was = { date: wall.date, start: wall.time, minutes: (props.capture.end - props.capture.start) / 60_000, roomId: props.capture.roomId, presenterId: props.capture.presenterId, inputs: props.capture.inputs, title: props.capture.topic, told: props.capture.told.map((p) => p.id) }
const fields = reactive({ ...was, ...props.proposed })
const scope = ref<ChangeCaptures['scope']>('one')
const weekdayOnly = ref(props.capture.weekdays.length > 1)
const except = ref<string[]>([])
const preview = shallowRef<ChangePreview | null>(null)
const errors = ref<Record<string, string>>({})
const trouble = ref('')
const busy = ref(false)
const note = ref('')
watch(() => props.proposed, (next) => Object.assign(fields, next))

const room = computed(() => props.choices.rooms.find((r) => r.id === fields.roomId))
const inPlan = computed(() => props.capture.planId !== null && props.capture.plan !== '')

/** Only what is different is asked for. */
const wish = computed(() => {
  const same = (key: keyof typeof was) => JSON.stringify(fields[key]) === JSON.stringify(was[key])
  const changed = Object.fromEntries((Object.keys(was) as (keyof typeof was)[]).filter((key) => !same(key)).map((key) => [key, fields[key]]))
  return { scope: scope.value, weekdayOnly: scope.value !== 'one' && weekdayOnly.value, except: except.value, ...changed } as Partial<ChangeCaptures>
})
const differs = computed(() => Object.keys(wish.value).some((key) => !['scope', 'weekdayOnly', 'except'].includes(key)))

let asked = 0
async function ask() {
  const mine = ++asked
  const found = await check(ChangeCaptures, wish.value)
  errors.value = 'errors' in found ? found.errors : {}
  if ('errors' in found || !differs.value) return void (preview.value = null)
  try {
    const answer = await api<ChangePreview>(`/api/captures/${props.capture.id}/preview`, { method: 'POST', body: wish.value })
    if (mine !== asked) return
    preview.value = answer
    trouble.value = ''
  } catch (error) {
    if (mine !== asked) return
    preview.value = null
    if (error instanceof ApiError && Object.keys(error.fields).length) errors.value = error.fields
    else trouble.value = sentenceOf(error)
  }
}
const soon = useDebounceFn(ask, 200, { maxWait: 800 })
watch(wish, soon, { deep: true, immediate: true })
/** Why an instructor cannot change this alone; then the team is asked. */
const beyond = computed(() => preview.value?.beyond ?? [])
/** Who is told changes no capture, and is worth saving all the same. */
const savable = computed(() => preview.value && (preview.value.lines.length > 0 || 'told' in wish.value))
const clashing = computed(() => preview.value?.lines.filter((l) => l.clash) ?? [])
/** Where every date clashes alike, one way out serves them all. */
const shared = computed<WayOut[]>(() => {
  const [first, ...rest] = clashing.value
  if (!first || clashing.value.length !== preview.value?.lines.length) return []
  return first.ways.filter((w) => w.kind !== 'leave out' && rest.every((l) => l.ways.some((o) => (o.kind === 'room' && w.kind === 'room' && o.roomId === w.roomId) || (o.kind === 'start' && w.kind === 'start' && o.start === w.start))))
})

function take(way: WayOut) {
  if (way.kind === 'room') fields.roomId = way.roomId
  if (way.kind === 'start') fields.start = way.start
}
const leaveAsIs = (line: ChangeLine) => (except.value = [...except.value, line.planDate])

async function save() {
  busy.value = true
  trouble.value = ''
  try {
    if (beyond.value.length) toasts.show((await api<{ sentence: string }>(`/api/requests?capture=${props.capture.id}`, { method: 'POST', body: { note: note.value, wish: wish.value } })).sentence)
    else edits.done(await api<Edited>(`/api/captures/${props.capture.id}/change`, { method: 'POST', body: wish.value }))
    emit('changed')
  } catch (error) {
    if (error instanceof ApiError && Object.keys(error.fields).length) errors.value = error.fields
    else trouble.value = sentenceOf(error)
    await ask()
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <BenchPanel :title="`Change ${capture.section}`" @close="emit('close')">
    <form id="change-form" class="flex flex-col gap-3" novalidate @submit.prevent="save">
      <p class="quiet">{{ capture.plan || 'Not part of a plan' }}</p>
      <fieldset v-if="inPlan">
        <legend class="label">Which ones</legend>
        <div class="flex flex-col gap-1">
          <label v-for="[key, text] in ([['one', `This one, ${dateWords(wall.date)}`], ['later', 'This and later ones'], ['all', 'All that are to come']] as const)" :key="key" class="flex items-center gap-2">
            <input v-model="scope" type="radio" name="scope" :value="key" class="size-4 accent-pool"> {{ text }}
          </label>
        </div>
        <label v-if="scope !== 'one' && capture.weekdays.length > 1" class="mt-1.5 flex items-center gap-2"><input v-model="weekdayOnly" type="checkbox" class="size-4 accent-pool"> only those on {{ weekdayNames[weekdayOf(wall.date) - 1] }}</label>
      </fieldset>
      <div class="grid grid-cols-[1.5fr_1fr_1fr] gap-3">
        <FormField v-slot="f" label="Date" :error="errors.date"><input v-bind="f" v-model="fields.date" type="date" class="field"></FormField>
        <FormField v-slot="f" label="Starts" :error="errors.start"><input v-bind="f" v-model.trim="fields.start" type="text" inputmode="numeric" class="field num"></FormField>
        <FormField v-slot="f" label="Minutes" :error="errors.minutes"><input v-bind="f" v-model.number="fields.minutes" type="number" min="2" max="480" class="field num"></FormField>
      </div>
      <div class="grid grid-cols-2 gap-3">
        <FormField v-slot="f" label="Room" :error="errors.roomId">
          <select v-bind="f" v-model="fields.roomId" class="field"><option v-for="r in choices.rooms" :key="r.id" :value="r.id">{{ r.name }} ({{ r.seats }})</option></select>
        </FormField>
        <FormField v-slot="f" label="Presenter" :error="errors.presenterId">
          <select v-bind="f" v-model="fields.presenterId" class="field"><option v-for="p in choices.presenters" :key="p.id" :value="p.id">{{ p.name }}</option></select>
        </FormField>
      </div>
      <InputChoice v-model="fields.inputs" :has="room?.inputs ?? []" :error="errors.inputs" />
      <FormField v-slot="f" label="Title" :error="errors.title"><input v-bind="f" v-model="fields.title" type="text" maxlength="160" class="field"></FormField>
      <ToldChoice v-if="inPlan" v-model="fields.told" :people="choices.presenters" :presenter="fields.presenterId" />

      <section v-if="preview" aria-live="polite" aria-labelledby="change-dates">
        <div class="mb-1.5 flex items-baseline gap-2">
          <h3 id="change-dates" class="text-[15px] font-semibold">{{ preview.lines.length ? `${plural(preview.lines.length, 'capture')} will change` : 'told' in wish ? 'No capture changes; who is told does' : 'Nothing changes' }}</h3>
          <span v-if="preview.untouched" class="quiet">{{ plural(preview.untouched, 'past or running one stays', 'past or running ones stay') }}</span>
          <span v-if="clashing.length" class="tag ml-auto bg-ember-wash! font-semibold text-ember-ink!">▲ {{ plural(clashing.length, 'clash', 'clashes') }}</span>
        </div>
        <ClashWays v-if="shared.length" class="mb-2" :sentence="`${clashing[0]!.clash}${clashing.length > 1 ? `, and all the others too` : ''}.`" :ways="shared" @take="take" />
        <ol class="max-h-[300px] overflow-y-auto rounded-md border border-silt" tabindex="0" aria-label="Captures that will change">
          <li v-for="line in preview.lines" :key="line.captureId" class="border-b border-marl px-2.5 py-1.5 last:border-0" :class="{ 'bg-ember-wash': line.clash }">
            <p class="flex gap-3"><span class="w-[88px] shrink-0">{{ dateWords(wallOf(me.zone, line.before.start).date) }}</span><span>{{ line.what.join(' · ') }}<span v-if="line.keeps.length" class="quiet"> keeps its own {{ line.keeps.join(', ') }}</span></span></p>
            <div v-if="line.clash" class="mt-1">
              <p class="font-semibold text-ember-ink"><span aria-hidden="true">▲ </span>{{ line.clash }}</p>
              <div class="mt-1 flex flex-wrap gap-1.5">
                <template v-if="preview.lines.length === 1 && !shared.length"><button v-for="way in line.ways.filter((w) => w.kind !== 'leave out')" :key="way.reason" type="button" class="btn btn-small" :title="way.reason" @click="take(way)">{{ way.kind === 'room' ? way.room : way.kind === 'start' ? way.start : '' }}</button></template>
                <button v-if="preview.lines.length > 1" type="button" class="btn btn-small" @click="leaveAsIs(line)">Leave this one as it is</button>
              </div>
            </div>
          </li>
        </ol>
      </section>
      <p v-for="warning in preview?.warnings" :key="warning" class="rounded bg-ochre-wash px-2 py-1 text-ochre-ink">? {{ warning }}</p>
      <AskTeamNote v-if="beyond.length" v-model="note" :reasons="beyond" />
      <p v-if="trouble" role="alert" class="wrong">{{ trouble }}</p>
    </form>
    <template #foot>
      <div class="flex items-center gap-2">
        <button type="submit" form="change-form" class="btn btn-main" :disabled="busy || !savable || clashing.length > 0">{{ busy ? 'Changing…' : beyond.length ? 'Ask the team' : preview && preview.lines.length > 1 ? `Change ${preview.lines.length} captures` : 'Change this capture' }}</button>
        <button type="button" class="btn" @click="emit('close')">Give up</button>
      </div>
    </template>
  </BenchPanel>
</template>
