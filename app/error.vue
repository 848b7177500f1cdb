<script setup lang="ts">
import type { NuxtError } from '#app'

defineProps<{ error: NuxtError }>()
</script>

<template>
  <main class="mx-auto max-w-[520px] p-8">
    <h1>{{ error.statusCode === 404 ? 'Nothing here' : 'Karstland could not open this page' }}</h1>
    <p class="mt-2">{{ error.statusCode === 404 ? 'There is nothing at this address.' : error.statusMessage || 'Something went wrong on our side. Nothing you saved is lost.' }}</p>
    <p class="mt-4"><a href="/" class="btn">To the start</a></p>
  </main>
</template>
