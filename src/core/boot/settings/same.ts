import type { SettingKey } from "./catalogue";

const ON = /^((always)?on|yes|true|enabled?|active|uefi)$/i;
const OFF = /^((always)?off|no|false|disabled?|inactive|legacy)$/i;
const MODES = /^(uefi|legacy|bios)/i;

/** Whether two values are the same setting; null for texts that only a person can compare. */
export function sameSetting(key: SettingKey, wanted: string, value: string): boolean | null {
  if (key === "mode") {
    const [a, b] = [wanted, value].map((v) => MODES.exec(v)?.[1]?.toLowerCase().replace("bios", "legacy"));
    return b === undefined ? null : a === b;
  }
  const [a, b] = [wanted, value].map((v) => (ON.test(v) ? true : OFF.test(v) ? false : null));
  return a === null || b === null ? (wanted.toLowerCase() === value.toLowerCase() ? true : null) : a === b;
}
