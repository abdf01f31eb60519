/** What was found for one line, and what that means; "not seen" may still tell how far the look went. */
export interface Seen {
  found: string;
  verdict: "as planned" | "differs" | "not seen";
}

export const seen = (found: string, agrees: boolean): Seen => ({
  found,
  verdict: agrees ? "as planned" : "differs",
});
export const differs = (found: string): Seen => ({ found, verdict: "differs" });
export const notSeen = (found = ""): Seen => ({ found, verdict: "not seen" });
