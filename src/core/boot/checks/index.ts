import { entryRules } from "./entry-rules";
import { pathRules } from "./path-rules";
import type { BootRule } from "./rule";
import { bootRules } from "./rules";
import { sanRules } from "./san-rules";

export { BOOT_MESSAGES } from "./messages.en";

export const BOOT_CHECKS: readonly BootRule[] = [...bootRules, ...pathRules, ...entryRules, ...sanRules];
