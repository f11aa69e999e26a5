/**
 * Sets DATABASE_URL to the private database of this directory, if nothing says another one; one that does not run is
 * started, and left running only as long as the program that called.
 */
export async function useOwnDatabase(): Promise<() => void> {
  if (process.env.DATABASE_URL) return () => undefined;
  const { startPostgres } = (await import('./lib/postgres.mjs' as string)) as {
    startPostgres: (name: string) => Promise<{ url: string; stop: () => void }>;
  };
  const { url, stop } = await startPostgres(process.env.FOLDER_CLUSTER ?? 'postgres');
  process.env.DATABASE_URL = url;
  return stop;
}
