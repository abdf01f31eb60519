import type { Answer } from "@/contract";

/**
 * Asks a route of this server for its answer. A server that is away, and an answer that is no answer of Derrick (a page
 * of something between, an answer cut off), are problems in words; `undone` says what did not happen.
 */
export async function asked<T>(url: string, undone: string, init?: RequestInit): Promise<Answer<T>> {
  const response = await fetch(url, init).catch(() => null);
  const said: unknown = await response?.json().catch(() => null);
  if (typeof said === "object" && said !== null && "ok" in said) return said as Answer<T>;
  const message = response
    ? `The server answered with status ${response.status}, but not with an answer of Derrick; ${undone}. A proxy may have answered, or Derrick is starting. Try again, then check the server log.`
    : `The server does not respond; ${undone}.`;
  return { ok: false, problems: [{ message }] };
}

/** A request that sends JSON. */
export const sending = (body: unknown): RequestInit => ({
  method: "POST",
  headers: { "Content-Type": "application/json" },
  body: JSON.stringify(body),
});
