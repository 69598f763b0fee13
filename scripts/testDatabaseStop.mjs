export default async function teardown() {
  await globalThis.morrinTestCluster?.stop();
}
