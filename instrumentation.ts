/** Runs once before the first request is answered. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { prepareOrEnd } = await import('./server/prepare');
  await prepareOrEnd();
}
