/** State that lives in the address, so that reload and Back lose nothing. */
export function useAddress() {
  const route = useRoute()
  const router = useRouter()
  const text = (name: string) => computed(() => {
    const value = route.query[name]
    return typeof value === 'string' ? value : undefined
  })

  /** Sets parts of the query; undefined takes one away. */
  function set(change: Record<string, string | undefined>, how: 'push' | 'replace' = 'push'): void {
    const query = { ...route.query, ...change }
    for (const key of Object.keys(query)) if (query[key] === undefined) delete query[key]
    void router[how]({ query })
  }

  return { text, set }
}
