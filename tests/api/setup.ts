/** API tests run against a house that `npm test` has started; here its clock is made to stand. */
export default async function setup() {
  const { setClock } = await import('../support/house')
  await setClock({ rate: 1 })
}
