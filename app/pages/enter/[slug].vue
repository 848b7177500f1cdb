<script setup lang="ts">
/** The window in which a frame's visitor signs in; hands the frame its ticket and closes. */
definePageMeta({ layout: 'plain' })
const route = useRoute()
const slug = route.params.slug as string
const words = ref('Signing you in…')

onMounted(async () => {
  try {
    const { ticket } = await api<{ ticket: string }>(`/api/embed/${slug}/ticket`, { method: 'POST' })
    const opener = window.opener as Window | null
    if (!opener) {
      words.value = 'You are signed in. Go back to the course page and reload it.'
      return
    }
    opener.postMessage({ karstlandTicket: ticket, slug }, window.location.origin)
    words.value = 'You are signed in. This window closes by itself.'
    window.close()
  } catch (error) {
    if (error instanceof ApiError && error.status === 401) window.location.assign(`/api/auth/sign-in?to=${encodeURIComponent(route.fullPath)}`)
    else words.value = error instanceof ApiError && error.status === 404 ? 'This placement is gone. Tell the instructor of the page.' : sentenceOf(error)
  }
})
useHead({ title: 'Sign in to watch' })
</script>

<template>
  <main class="grid min-h-dvh place-items-center p-6 text-center"><div><img src="/mark.svg" alt="" class="mx-auto mb-3 size-12"><h1>{{ words }}</h1></div></main>
</template>
