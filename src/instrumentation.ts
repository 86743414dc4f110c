/** Called once by the framework when the server starts: brings the product up and prints the set-up token. */
export async function register(): Promise<void> {
  if (
    process.env['NEXT_RUNTIME'] !== 'nodejs' ||
    process.env['NEXT_PHASE'] === 'phase-production-build'
  )
    return;
  const { start } = await import('@/server/http/start');
  await start();
}
