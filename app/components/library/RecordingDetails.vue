<script setup lang="ts">
/** What is known of a recording and what can be done: its road, release, placements and record. Bench and page share it. */
import { wallOf } from '~~/core/term/calendar'
import type { PlacementCode, RecordingView } from '~~/shared/library/views'

const props = defineProps<{ recording: RecordingView }>()
const emit = defineEmits<{ changed: [recording?: RecordingView] }>()
const me = useMe()
const toasts = useToasts()
const busy = ref(false)
const code = ref<PlacementCode | null>(null)
const newName = ref<string | null>(null)

async function tell(verb: 'release' | 'hold') {
  busy.value = true
  try {
    const changed = await api<RecordingView>(`/api/recordings/${props.recording.recordingId}/${verb}`, { method: 'POST', body: { filingId: props.recording.filingId } })
    emit('changed', changed)
    toasts.show(verb === 'release' ? `Released to ${changed.section}, ${plural(changed.people, 'person', 'people')}` : `Held again: the class list of ${changed.section} can no longer watch it`,
      { label: 'Undo', run: () => tell(verb === 'release' ? 'hold' : 'release') })
  } catch (error) {
    toasts.show(sentenceOf(error))
  } finally {
    busy.value = false
  }
}

async function place(kind: 'player' | 'link') {
  try {
    code.value = await api<PlacementCode>(`/api/recordings/${props.recording.recordingId}/place`, { method: 'POST', body: { filingId: props.recording.filingId, kind } })
    emit('changed')
    await nextTick()
    await copy()
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}

/** Links are copied as text and as HTML, so that a page editor takes them as a link. */
async function copy() {
  if (!code.value) return
  try {
    const asText = (text: string, type: string) => new Blob([text], { type })
    if (code.value.kind === 'link') await navigator.clipboard.write([new ClipboardItem({ 'text/plain': asText(code.value.html, 'text/plain'), 'text/html': asText(code.value.html, 'text/html') })])
    else await navigator.clipboard.writeText(code.value.html)
    toasts.show(code.value.kind === 'link' ? 'Link copied. Paste it into a course page.' : 'Player code copied. Paste it into a course page.')
  } catch {
    toasts.show('Your browser did not let us copy. Select the code and copy it by hand.')
  }
}

async function rename() {
  if (!newName.value?.trim()) return
  // Taken before asking: the live stream may bring the new name sooner than the answer does.
  const before = props.recording.name
  try {
    emit('changed', await api<RecordingView>(`/api/recordings/${props.recording.recordingId}`, { method: 'PATCH', body: { name: newName.value } }))
    toasts.show('Renamed', { label: 'Undo', run: () => { newName.value = before; return rename() } })
    newName.value = null
  } catch (error) {
    toasts.show(sentenceOf(error))
  }
}

const opens = computed(() => (props.recording.opensAt && props.recording.opensAt > me.campusNow() ? `opens ${momentWords(me.zone, props.recording.opensAt)}` : ''))
const day = (instant: number) => `${dateWords(wallOf(me.zone, instant).date)} ${wallOf(me.zone, instant).time}`
</script>

<template>
  <div>
    <p class="quiet">{{ recording.week }} · <template v-if="recording.start">{{ momentWords(me.zone, recording.start) }} · </template>{{ recording.room }} · {{ recording.presenter }}</p>
    <form v-if="newName !== null" class="mt-2 flex gap-2" @submit.prevent="rename" @keydown.esc.stop="newName = null">
      <input v-model="newName" class="field" aria-label="Name of the recording" maxlength="200" @vue:mounted="({ el }: { el: HTMLInputElement }) => el.select()">
      <button class="btn btn-main">Rename</button>
    </form>
    <RoadLine class="mt-3" :road="recording.road" wide />
    <div v-if="recording.may.place" class="mt-3 flex flex-wrap gap-2">
      <button v-if="!recording.released && recording.may.release" type="button" class="btn btn-main" :disabled="busy" @click="tell('release')">Release to class list</button>
      <button v-if="recording.released && recording.may.release" type="button" class="btn" :disabled="busy" @click="tell('hold')">Hold again</button>
      <button v-if="recording.may.rename && newName === null" type="button" class="btn" @click="newName = recording.name">Rename</button>
    </div>

    <section class="mt-4 border-t border-silt pt-3">
      <h2>Who can watch</h2>
      <dl class="mt-1.5 grid grid-cols-[84px_1fr] gap-y-1.5">
        <dt class="text-slate">Class list</dt>
        <dd><span class="tag" :class="recording.released ? 'bg-moss-wash! text-moss-ink!' : ''">{{ recording.released ? opens || 'open' : 'held' }}</span> {{ recording.section }}, {{ plural(recording.people, 'person', 'people') }}</dd>
        <dt class="text-slate">Always</dt><dd>{{ recording.presenter }} and the media team</dd>
      </dl>
    </section>

    <section v-if="recording.may.place" class="mt-4 border-t border-silt pt-3">
      <h2>Placed on</h2>
      <ul class="mt-1.5 space-y-1.5">
        <li v-for="p in recording.placements" :key="p.id" class="flex items-baseline gap-2">
          <span class="tag">{{ p.kind }}</span>
          <a v-if="p.pageUrl" :href="p.pageUrl" target="_blank" rel="noopener" class="min-w-0 truncate">{{ pageWords(p.pageUrl) }}</a>
          <span v-else class="text-ochre-ink">copied {{ day(p.copiedAt) }}, not met on a page yet</span>
        </li>
      </ul>
      <p v-if="!recording.placements.length" class="text-slate">On no page yet. Copy a code and paste it into a page of your course.</p>
      <div class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="btn" @click="place('player')">Copy player code</button>
        <button type="button" class="btn" @click="place('link')">Copy link</button>
      </div>
      <div v-if="code" class="mt-2">
        <label class="label" for="placement-code">{{ code.kind === 'player' ? 'Player code for the page’s HTML' : 'Link for the page' }}</label>
        <textarea id="placement-code" readonly rows="4" class="field num text-[12px]!" :value="code.html" @focus="($event.target as HTMLTextAreaElement).select()" />
        <p v-if="!recording.released" class="mt-1 rounded bg-ochre-wash px-2 py-1 text-ochre-ink">It is held: on the page, the class will read that it is not released yet.</p>
      </div>
    </section>

    <section v-if="recording.level" class="mt-4 border-t border-silt pt-3">
      <h2>Sound</h2>
      <SoundShape :level="recording.level" class="mt-1" />
    </section>

    <section v-if="recording.log.length" class="mt-4 border-t border-silt pt-3">
      <h2>Record</h2>
      <ul class="mt-1.5 space-y-1"><li v-for="(entry, i) in recording.log" :key="i" class="flex gap-2"><span class="num quiet w-[112px] shrink-0">{{ day(entry.at) }}</span><span>{{ entry.what }}, {{ entry.who }}</span></li></ul>
    </section>
  </div>
</template>
