/** Fields that a profile leaves out where the form has nothing in them. */
const LEFT_OUT = new Set(["to", "least", "road", "target", "model", "part", "processorLevel"]);

/**
 * The values of the form as the profile's shape wants them: empty choices are left out, an empty date or number of days
 * is "none", empty lines of lists go. Nothing that a person typed is changed.
 */
export function tidy(value: unknown, key = ""): unknown {
  if (Array.isArray(value))
    return value.map((v) => tidy(v)).filter((v) => typeof v !== "string" || v.trim() !== "");
  if (typeof value !== "object" || value === null) {
    if (key === "ends" && value === "") return null;
    return key === "evaluationDays" && typeof value === "number" && Number.isNaN(value) ? null : value;
  }
  const entries = Object.entries(value)
    .filter(([k, v]) => !(LEFT_OUT.has(k) && (v === "" || v === undefined || v === null)))
    .filter(([k, v]) => !(k === "stone" && isEmptyStone(v)))
    .map(([k, v]) => [k, tidy(v, k)]);
  return Object.fromEntries(entries) as unknown;
}

const isEmptyStone = (stone: unknown): boolean => {
  const { profile = "", version = "" } = (stone ?? {}) as { profile?: string; version?: string };
  return profile.trim() === "" && version.trim() === "";
};
