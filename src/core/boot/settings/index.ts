export { SETTING_KEYS, SETTINGS, type SettingKey } from "./catalogue";
export { sameSetting } from "./same";
export { settingsSheet, settingsText, siteSettingsOf } from "./sheet";
export { namesInOrder } from "./wanted";
export type { SettingView, Wanted } from "./view";
