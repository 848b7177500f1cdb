<script setup lang="ts">
/** The road to students: four beads on a string, turned to a square where it is broken, and always a word. */
import { beads, type Road } from '~~/core/library/road'

const props = defineProps<{ road: Road, wide?: boolean }>()
const gap = computed(() => (props.wide ? 78 : 26))
const label = computed(() => `${beads.map((b) => `${b}: ${{ done: 'yes', open: 'not yet', broken: 'broken' }[props.road.beads[b]]}`).join(', ')}. ${props.road.word}`)
const reached = computed(() => beads.filter((b, i) => i > 0 && props.road.beads[b] === 'done' && props.road.beads[beads[i - 1]!] === 'done').length)
</script>

<template>
  <div>
    <svg :width="gap * 3 + 14" height="14" role="img" :aria-label="label">
      <line x1="7" y1="7" :x2="7 + gap * 3" y2="7" stroke="var(--edge)" stroke-width="2" />
      <line v-if="reached" x1="7" y1="7" :x2="7 + gap * reached" y2="7" stroke="var(--pool-ink)" stroke-width="2" />
      <template v-for="(bead, i) in beads" :key="bead">
        <rect v-if="road.beads[bead] === 'broken'" :x="7 + gap * i - 4.5" y="2.5" width="9" height="9" :transform="`rotate(45 ${7 + gap * i} 7)`" fill="var(--chalk)" stroke="var(--ember)" stroke-width="2" />
        <circle v-else :cx="7 + gap * i" cy="7" r="4.5" :fill="road.beads[bead] === 'done' ? 'var(--pool-ink)' : 'var(--chalk)'" :stroke="road.beads[bead] === 'done' ? 'var(--pool-ink)' : 'var(--edge)'" stroke-width="2" />
      </template>
    </svg>
    <div v-if="wide" class="quiet relative h-[17px]" aria-hidden="true"><span v-for="(bead, i) in beads" :key="bead" class="absolute" :style="{ left: `${i ? 7 + gap * i : 0}px`, transform: i ? 'translateX(-50%)' : '' }">{{ bead }}</span></div>
    <p class="quiet" :class="{ 'text-ember-ink!': Object.values(road.beads).includes('broken'), 'text-ink! mt-1 text-[14px]!': wide }">{{ road.word }}<template v-if="wide && road.next">: {{ road.next }}</template></p>
  </div>
</template>
