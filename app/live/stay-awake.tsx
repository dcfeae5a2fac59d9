import Box from "@mui/material/Box";
import { useEffect, useSyncExternalStore } from "react";
import { readStored, writeStored } from "./browser-store";
import { useSay } from "../words/text";

const key = "steady-bead.awake";
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

const can = () => "wakeLock" in navigator;
const wanted = () => can() && readStored(key) === "yes";

/** Keeps the screen lit while a page is looked at, where somebody wants that. */
function useLitScreen(on: boolean): void {
  useEffect(() => {
    if (!on) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    // The browser lets go of it whenever the page is hidden.
    const take = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        lock = await navigator.wakeLock.request("screen");
        if (over) void lock.release();
      } catch {
        // A battery that is nearly empty: the device decides.
      }
    };
    const turned = () => void take();
    document.addEventListener("visibilitychange", turned);
    turned();
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", turned);
      void lock?.release();
    };
  }, [on]);
}

/** The choice to keep the screen lit at the bench, remembered on this device. */
export function StayAwake() {
  const say = useSay();
  const possible = useSyncExternalStore(subscribe, can, () => false);
  const on = useSyncExternalStore(subscribe, wanted, () => false);
  useLitScreen(on);
  if (!possible) return null;
  const turn = () => {
    writeStored(key, on ? null : "yes");
    listeners.forEach((listener) => listener());
  };
  return (
    <Box component="button" type="button" aria-pressed={on} onClick={turn} sx={buttonStyle}>
      {say`Keep screen on`}
    </Box>
  );
}

const buttonStyle = {
  alignSelf: "center",
  flexShrink: 0,
  minHeight: 32,
  px: 1.25,
  border: "1px solid #56625f",
  borderRadius: "999px",
  background: "none",
  color: "#c3cccb",
  font: "inherit",
  fontSize: "0.85rem",
  whiteSpace: "nowrap",
  cursor: "pointer",
  '&[aria-pressed="true"]': { background: "#f4f2ec", color: "#1c282c", borderColor: "#f4f2ec" },
  "&:focus-visible": { outlineColor: "#fff" },
} as const;
