<script setup lang="ts">
/** Loudness over the recording, drawn from silence (−60) to loud (−10). */
import { scaleLinear } from 'd3-scale'
import type { SoundLevel } from '~~/shared/library/views'

const props = defineProps<{ level: SoundLevel }>()
const y = scaleLinear().domain([-60, -10]).range([30, 2]).clamp(true)
const path = computed(() => `M0 30 ${props.level.shape.map((v, i) => `L${i / (props.level.shape.length - 1) * 300} ${y(v).toFixed(1)}`).join(' ')} L300 30 Z`)
const words = computed(() => (props.level.loudness === null ? 'Silent throughout' : `${props.level.loudness.toFixed(0)} LUFS, heard ${Math.round(props.level.heard * 100)}% of the time`))
</script>

<template>
  <figure>
    <svg viewBox="0 0 300 30" preserveAspectRatio="none" class="h-[34px] w-full" role="img" :aria-label="words"><path :d="path" fill="var(--pool-wash)" stroke="var(--pool-ink)" stroke-width="1" vector-effect="non-scaling-stroke" /></svg>
    <figcaption class="quiet" :class="{ 'text-ember-ink!': level.loudness === null }">{{ level.loudness === null ? '▲ ' : '' }}{{ words }}</figcaption>
  </figure>
</template>
