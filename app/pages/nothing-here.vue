<script setup lang="ts">
definePageMeta({ layout: 'plain' })
useHead({ title: 'Nothing here · Karstland' })
</script>

<template>
  <main class="mx-auto max-w-[520px] p-8"><img src="/mark.svg" alt="" class="mb-4 size-12"><h1>Nothing here</h1><p class="mt-2">There is nothing at this address. It may have been taken back, or the address is not whole.</p><p class="mt-4"><NuxtLink to="/" class="btn">To the start</NuxtLink></p></main>
</template>
