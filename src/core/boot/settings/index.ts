export { SETTING_KEYS, SETTINGS, type SettingKey } from "./catalogue";
export { sameSetting, settingsSheet, settingsText } from "./sheet";
export { namesInOrder } from "./wanted";
export type { SettingView, Wanted } from "./view";
