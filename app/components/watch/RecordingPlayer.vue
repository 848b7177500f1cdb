<script setup lang="ts">
/**
 * Plays a recording: the screen large with the sound, the camera beside or laid in and kept in step.
 * Keeps its grant fresh, and reports what was watched.
 */
import 'media-chrome'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import Hls from 'hls.js/light'
import type { Grant, WatchView } from '~~/shared/watch/watch'

const props = defineProps<{ view: WatchView, renew: () => Promise<Grant | null>, report: (positionS: number, spans: [number, number][]) => Promise<void> }>()

const screen = useTemplateRef<HTMLVideoElement>('screen')
const camera = useTemplateRef<HTMLVideoElement>('camera')
const shell = useTemplateRef<HTMLElement>('shell')
const controller = useTemplateRef<HTMLElement & { fullscreenElement: HTMLElement }>('controller')
const trouble = ref('')
let grant = props.view.grant!

/** How the two pictures lie; remembered in this browser where it lets us. */
const layouts = { beside: 'Camera beside', inset: 'Camera laid in', screen: 'Screen alone', camera: 'Camera large' } as const
type Layout = keyof typeof layouts
const layout = ref<Layout>(props.view.hasCamera ? remembered() : 'screen')
function remembered(): Layout {
  try {
    const kept = localStorage.getItem('karstland-layout')
    return kept && kept in layouts ? kept as Layout : 'inset'
  } catch {
    return 'inset'
  }
}
watch(layout, (value) => {
  try {
    localStorage.setItem('karstland-layout', value)
  } catch { /* a frame may not be allowed to remember */ }
})

/** Streams are named by the grant they were found with; what is fetched later goes by the newest. */
const current = (url: string) => url.replace(/^(https?:\/\/[^/]+)?\/media\/[^/]+/, grant.base)

const players: Hls[] = []
function attach(video: HTMLVideoElement, part: 'screen' | 'camera', startPosition: number): void {
  const address = `${grant.base}/${part}/index.m3u8`
  if (!Hls.isSupported()) {
    video.src = address
    video.currentTime = startPosition
    return
  }
  const hls = new Hls({ startPosition, maxBufferLength: 30, backBufferLength: 60, enableWorker: false, xhrSetup: (xhr, url) => xhr.open('GET', current(url), true) })
  hls.on(Hls.Events.ERROR, (_event, data) => {
    if (!data.fatal) return
    if (data.type === Hls.ErrorTypes.MEDIA_ERROR) hls.recoverMediaError()
    else if (part === 'screen') void again(hls)
  })
  hls.loadSource(address)
  hls.attachMedia(video)
  players.push(hls)
}

/** The line broke or the grant is over: a new grant, and on from the same place. */
let tries = 0
async function again(hls: Hls): Promise<void> {
  if (++tries > 6) {
    trouble.value = 'The line to Karstland is down. What you have watched is kept; reload the page to go on.'
    return
  }
  await new Promise((r) => setTimeout(r, 500 * tries))
  await refreshGrant()
  hls.startLoad(screen.value?.currentTime)
}

async function refreshGrant(): Promise<void> {
  const fresh = await props.renew().catch(() => undefined)
  if (fresh) grant = fresh
  if (fresh === null) screen.value?.pause()
}
useIntervalFn(refreshGrant, props.view.grant!.renewMs)

onMounted(() => {
  // Both pictures fill the screen together.
  controller.value!.fullscreenElement = shell.value!
  attach(screen.value!, 'screen', props.view.resumeAt)
  if (camera.value) attach(camera.value, 'camera', props.view.resumeAt)
})
onBeforeUnmount(() => {
  void send()
  players.forEach((p) => p.destroy())
})

/** The camera follows the screen: same place within a quarter second, same speed. */
function follow(): void {
  const main = screen.value
  const side = camera.value
  if (!main || !side) return
  side.playbackRate = main.playbackRate
  if (Math.abs(side.currentTime - main.currentTime) > 0.25 && side.readyState > 0) side.currentTime = main.currentTime
  if (main.paused !== side.paused) void (main.paused ? side.pause() : side.play().catch(() => {}))
}
useIntervalFn(follow, 500)

/** Watched spans since they were last sent. */
let spans: [number, number][] = []
let last = -1
function tick(): void {
  const at = screen.value!.currentTime
  tries = 0
  // A jump is not watching: only steps that playing itself takes count.
  if (last >= 0 && at > last && at - last < 2 * Math.max(1, screen.value!.playbackRate)) {
    const open = spans.at(-1)
    if (open && Math.abs(open[1] - last) < 0.01) open[1] = at
    else spans.push([last, at])
  }
  last = screen.value!.paused ? -1 : at
}
async function send(): Promise<void> {
  if (!spans.length || !screen.value) return
  const sending = spans
  spans = []
  // What did not arrive goes along with the next.
  await props.report(screen.value.currentTime, sending).catch(() => (spans = [...sending, ...spans].slice(-100)))
}
useIntervalFn(() => void send(), 8000)
useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && void send())
useEventListener(window, 'pagehide', () => void send())

const picture = computed(() => props.view.hasPicture)
</script>

<template>
  <div ref="shell" class="player" :class="[`lay-${layout}`, { 'no-picture': !picture }]">
    <media-controller ref="controller" class="main" defaultsubtitles="false" keyboardforwardseekoffset="10" keyboardbackwardseekoffset="10">
      <video ref="screen" slot="media" playsinline preload="auto" :aria-label="view.name" @timeupdate="tick" @seeking="last = -1; follow()" @play="follow" @pause="follow(); tick(); send()" @ended="send()" @ratechange="follow" />
      <media-loading-indicator slot="centered-chrome" noautohide />
      <p v-if="!picture" slot="centered-chrome" class="sound-only">Sound only</p>
      <media-control-bar class="line"><media-time-range /></media-control-bar>
      <media-control-bar class="bar">
        <media-play-button /><media-seek-backward-button seekoffset="10" /><media-seek-forward-button seekoffset="10" />
        <media-mute-button /><media-volume-range />
        <media-time-display showduration /><span class="grow" />
        <media-playback-rate-button rates="0.75 1 1.25 1.5 1.75 2" />
        <select v-if="view.hasCamera" v-model="layout" aria-label="How the two pictures lie"><option v-for="(word, key) in layouts" :key="key" :value="key">{{ word }}</option></select>
        <media-fullscreen-button />
      </media-control-bar>
    </media-controller>
    <video v-if="view.hasCamera" ref="camera" class="side" muted playsinline preload="auto" tabindex="-1" aria-hidden="true" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.player { position: relative; display: grid; overflow: hidden; background: #0a1318; color: #fff; width: 100%; height: 100%; grid-template-columns: minmax(0, 1fr); }
.main { width: 100%; height: 100%; min-height: 0; aspect-ratio: auto; --media-primary-color: #fff; --media-secondary-color: #14222ae6; --media-control-background: #14222ae6; --media-control-hover-background: #33474e;
  --media-range-bar-color: #d3de4a; --media-range-track-background: #ffffff55; --media-range-thumb-background: #d3de4a; --media-font-family: var(--font-sans); --media-focus-box-shadow: inset 0 0 0 3px #d3de4a; }
.main video { width: 100%; height: 100%; object-fit: contain; }
.bar { width: 100%; }
.bar > * { flex-shrink: 0; }
media-seek-backward-button, media-seek-forward-button, media-play-button, media-mute-button, media-fullscreen-button { min-width: 40px; }
.bar .grow, .bar select { flex-shrink: 1; min-width: 0; }
.bar .grow { flex: 1; background: #14222ae6; }
.bar select { border: 0; background: #14222ae6; color: #fff; font: 13px var(--font-sans); padding: 0 8px; }
.bar select:focus-visible { box-shadow: inset 0 0 0 3px #d3de4a; outline: none; }
.side { background: #0a1318; object-fit: contain; }
.lay-beside { grid-template-columns: minmax(0, 3fr) minmax(0, 1.25fr); align-items: center; }
.lay-beside .side { width: 100%; padding: 4px; }
.lay-inset .side { position: absolute; right: 12px; bottom: 98px; width: 22%; border: 2px solid #ffffffaa; border-radius: 6px; pointer-events: none; }
.lay-screen .side { display: none; }
.lay-camera .side { position: absolute; inset: 0 0 88px; width: 100%; height: calc(100% - 88px); pointer-events: none; }
.lay-camera .main video { opacity: 0; }
.sound-only { font: 600 18px var(--font-head); }
.trouble { position: absolute; inset: auto 0 98px; margin: auto; width: fit-content; max-width: 90%; background: #14222a; border: 2px solid #d3de4a; border-radius: 6px; padding: 8px 14px; }
@container (max-width: 760px) { media-volume-range { display: none; } }
@container (max-width: 560px) { media-seek-backward-button, media-seek-forward-button { display: none; } .lay-beside { grid-template-columns: minmax(0, 1fr); } .lay-beside .side { position: absolute; right: 8px; top: 8px; width: 30%; } }
</style>
