import { useEventListener, useIntervalFn } from "@vueuse/core";
import { type Ref, watch } from "vue";
import { mayNotify, notify, withdraw } from "@/kit/notices";
import { useRole } from "@/kit/role";
import { play } from "@/kit/sound";
import { own } from "@/server/account";
import type { Bell, Ring } from "@/server/bell";
import { client } from "@/server/client";
import { inForce } from "@/server/in-force";
import { useServer } from "@/server/server";
import { reminders, ringWords } from "@/words/bell";
import { useBellState } from "./bell";

/** How often a window says that it lives, in milliseconds. */
const speakEvery = 20_000;
/** More rings at once than this are one notification. */
const atOnce = 3;
/** How long after a ring the server is sure to know that a window was hidden as it rang, in milliseconds. */
const hiding = 1_500;
/** How many of the rings that were told are remembered. */
const remembered = 300;

const inSight = () => document.visibilityState === "visible";
const notifies = () => mayNotify() && inForce.browserNotifications === "on";

/** A ring as it was told: one that was put off is told again. */
const telling = (r: Ring) => `${r.id} ${r.rang}`;

/** The rings that windows of this browser told of before this one was opened. */
function toldBefore(): string[] {
  try {
    return JSON.parse(localStorage.getItem(own("rung")) ?? "[]") as string[];
  } catch {
    return []; // written by something else
  }
}

async function show(rings: Ring[], today: string) {
  if (rings.length > atOnce) {
    const first = rings.slice(0, atOnce).map((r) => r.title);
    await notify({ tag: "many", title: reminders(rings.length), body: first.join("\n") });
    return;
  }
  for (const r of rings)
    await notify({
      tag: r.id,
      title: r.title,
      body: ringWords(r, today),
      data: { ring: r.id, todo: r.todo },
    });
}

/**
 * Tells of rings as this window can: with a sound where it is in sight, by a notification of
 * the browser where no window is. Of all windows of the browser one does.
 */
export function useTelling(
  bell: Ref<Bell | undefined>,
  /** Reads the bell once more, and says whether it was read. */
  again: () => Promise<boolean>,
  today: () => string,
) {
  const state = useBellState();

  const speak = (gone = false) =>
    void client
      .POST("/api/windows", {
        body: { inSight: inSight() && !gone, notifies: !inSight() && notifies(), gone },
        keepalive: true,
      })
      .catch(() => {}); // it is said again soon

  /** Of the windows in sight one plays, and of hidden ones one notifies. */
  const ringer = useRole(own("ringer"));
  const notifier = useRole(own("notifier"));
  const offer = () => {
    ringer.want(inSight());
    notifier.want(!inSight() && notifies());
  };
  const told = new Set(toldBefore());

  async function tell() {
    const now = bell.value;
    const fresh = now?.open.filter((r) => !told.has(telling(r))) ?? [];
    if (!now || !fresh.length) return;
    const shows = inSight();
    if (!shows && !now.inSight && !notifies()) return; // nobody can: the next one in sight does
    for (const r of fresh) told.add(telling(r));
    if (!shows && now.inSight) void lookAgain(fresh);
    if (shows ? !ringer.mine() : now.inSight || !notifier.mine()) return; // another window does
    localStorage.setItem(own("rung"), JSON.stringify([...told].slice(-remembered)));
    if (shows) state.mute = !(await play(fresh[0]!.sound ?? inForce.sound));
    else await show(fresh, today());
  }
  /** A window that was hidden just as it rang was in sight for the server still. */
  async function lookAgain(rings: Ring[]) {
    await new Promise((soon) => setTimeout(soon, hiding));
    await again();
    if (inSight() || bell.value?.inSight || !notifies()) return;
    for (const r of rings) told.delete(telling(r));
    await tell();
  }
  /** Takes back notifications of what is answered, and of what shows as a card. */
  const takeBack = () =>
    withdraw(
      (tag) => inSight() || (tag !== "many" && !bell.value?.open.some((r) => r.id === tag)),
      async () => inSight() || again(),
    );

  offer();
  speak();
  useIntervalFn(() => {
    offer();
    speak();
  }, speakEvery);
  useEventListener(document, "visibilitychange", () => {
    offer();
    speak();
    void tell();
    void takeBack();
  });
  // A server that was away knows of no window.
  const server = useServer();
  watch(
    () => server.away,
    (away) => away || speak(),
  );
  useEventListener(window, "pagehide", () => speak(true));
  useEventListener(window, "pageshow", () => speak());
  const touched = () => (state.mute = false);
  useEventListener(window, ["pointerdown", "keydown"], touched, { capture: true, passive: true });
  watch(
    () => bell.value?.open.map(telling).join(),
    () => {
      void tell();
      void takeBack();
    },
    { immediate: true },
  );
}
