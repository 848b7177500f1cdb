<script setup lang="ts">
/** What belongs in an empty place, and the first step. */
defineProps<{ title: string }>()
</script>

<template>
  <div class="mx-auto my-10 max-w-[440px] rounded-md border border-dashed border-edge p-6 text-center">
    <p class="font-head text-[15px] font-semibold">{{ title }}</p>
    <p class="mt-1 text-slate"><slot /></p>
  </div>
</template>
