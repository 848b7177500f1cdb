<script setup lang="ts">
defineProps<{ percent: number, label: string }>()
</script>

<template>
  <span role="progressbar" :aria-label="label" :aria-valuenow="Math.round(percent)" aria-valuemin="0" aria-valuemax="100" class="inline-block h-1.5 w-[90px] shrink-0 overflow-hidden rounded bg-silt">
    <span class="block h-full bg-pool transition-[width]" :style="{ width: `${percent}%` }" />
  </span>
</template>
