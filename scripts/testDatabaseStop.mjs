export default async function teardown() {
  await globalThis.morrinTestDatabase?.stop();
}
