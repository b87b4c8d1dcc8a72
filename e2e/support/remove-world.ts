/** After all files. */
export default async function removeWorld(): Promise<void> {
  await (globalThis as { removeWorld?: () => Promise<void> }).removeWorld?.();
}
