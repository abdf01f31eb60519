/** A page that waits longer than this without a word looks as if nothing had been pressed. */
const PATIENCE = 3000;

/** Null while the server and its database answer; else what is the matter, in words. */
export async function askHealth(): Promise<string | null> {
  const response = await fetch("/api/health", { signal: AbortSignal.timeout(PATIENCE) }).catch(() => null);
  if (response?.ok) return null;
  const body = (await response?.json().catch(() => null)) as { problems?: { message: string }[] } | null;
  return body?.problems?.[0]?.message ?? "The server does not respond.";
}
