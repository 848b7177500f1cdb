<script setup lang="ts">
import { stateWord, type CaptureState } from '~~/core/capture/states'

const states: CaptureState[] = ['planned', 'armed', 'recording', 'being_made', 'filed', 'missed']
</script>

<template>
  <ul class="flex flex-wrap gap-x-3 gap-y-1" aria-label="Legend">
    <li v-for="state in states" :key="state" class="quiet flex items-center gap-1.5">
      <span class="relative inline-block h-3 w-[18px] overflow-hidden rounded-[3px]" :class="lookOf(state)" aria-hidden="true">
        <span v-if="state === 'recording'" class="absolute bottom-0 left-0 h-[4px] w-2/3 bg-ember" />
        <span v-if="state === 'missed'" class="absolute inset-0 grid place-items-center text-[8px] leading-none text-ember-ink">▲</span>
      </span>
      {{ stateWord[state] }}
    </li>
  </ul>
</template>
