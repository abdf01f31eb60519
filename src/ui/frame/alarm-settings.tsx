"use client";

import { useState, useSyncExternalStore } from "react";
import { ALARM_KEYS, sound, wants } from "./announce";

const listen = (changed: () => void) => {
  addEventListener("storage", changed);
  return () => removeEventListener("storage", changed);
};

/** How the end of a wait is told in this browser, beside the title of the page. */
export function AlarmSettings() {
  const [, redraw] = useState(0);
  const [refused, setRefused] = useState(false);
  const bySound = useSyncExternalStore(
    listen,
    () => wants("sound"),
    () => false,
  );
  const byNotice = useSyncExternalStore(
    listen,
    () => wants("notice"),
    () => false,
  );
  const choose = (key: keyof typeof ALARM_KEYS, on: boolean): void => {
    localStorage.setItem(ALARM_KEYS[key], on ? "yes" : "no");
    dispatchEvent(new StorageEvent("storage"));
    redraw((n) => n + 1);
  };
  const notice = async (on: boolean) => {
    const granted = on && "Notification" in window ? await Notification.requestPermission() : "denied";
    setRefused(on && granted !== "granted");
    choose("notice", on && granted === "granted");
  };
  return (
    <p className="quiet mt-1 flex flex-wrap items-baseline gap-x-4 text-[0.93rem]">
      <span>When a wait ends, every Derrick page shows it in its title. Also:</span>
      <label className="flex items-baseline gap-1.5">
        <input
          className="checkbox checkbox-xs"
          type="checkbox"
          checked={bySound}
          onChange={(e) => {
            choose("sound", e.target.checked);
            if (e.target.checked) sound();
          }}
        />
        sound
      </label>
      <label className="flex items-baseline gap-1.5">
        <input
          className="checkbox checkbox-xs"
          type="checkbox"
          checked={byNotice}
          onChange={(e) => void notice(e.target.checked)}
        />
        browser notification
      </label>
      {refused && (
        <span role="alert">
          Notifications are blocked for this page. Allow them in the settings of the browser.
        </span>
      )}
    </p>
  );
}
