import type { Zone } from "@/core/finding";

/** What a profile that is being written makes: its steps on a plain machine, or what is wrong with it; and what a sheet lacks. */
export interface ProfilePreview {
  steps: { id: string; zone: Zone; isGuard: boolean; title: string; likelySeconds: number }[];
  lacks: string[];
  problems: { message: string; lacks: string | null }[];
}
