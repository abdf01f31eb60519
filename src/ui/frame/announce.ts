"use client";

/** How a person wants to be told, kept in this browser. */
export const ALARM_KEYS = { sound: "derrick-alarm-sound", notice: "derrick-alarm-notice" } as const;

export const wants = (key: keyof typeof ALARM_KEYS): boolean =>
  localStorage.getItem(ALARM_KEYS[key]) === "yes";

/** Two short tones, made here: no file, no network. */
export function sound(): void {
  const context = new AudioContext();
  const tone = context.createOscillator();
  const gain = context.createGain();
  tone.connect(gain).connect(context.destination);
  gain.gain.value = 0.15;
  tone.frequency.setValueAtTime(880, context.currentTime);
  tone.frequency.setValueAtTime(660, context.currentTime + 0.25);
  tone.start();
  tone.stop(context.currentTime + 0.5);
  tone.onended = () => void context.close();
}

/** Tells by the means that this browser's person has chosen. */
export function announce(title: string, body: string): void {
  if (wants("sound")) sound();
  if (wants("notice") && "Notification" in window && Notification.permission === "granted")
    new Notification(title, { body, tag: title });
}
