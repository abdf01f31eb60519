export { LEDGER_KINDS, type SiteClaim } from "./ledger";
export { judgeSite, rejudgeInPlace, siteFindings, type SiteJudgement } from "./judge";
export { SITE_MESSAGES } from "./messages.en";
export { SITE_RULES, STRETCH_RULES } from "./rules";
