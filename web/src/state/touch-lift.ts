import { onBeforeUnmount, onMounted, ref, type Ref } from "vue";
import type { Todo } from "@/server/client";
import { useCurrent } from "@/state/current";
import { type TouchTarget, touchTargetAt } from "@/state/touch-targets";

/** How long a finger rests before it lifts a row, in milliseconds. */
const rests = 450;
/** How far a finger may stray while it rests, in pixels. */
const strays = 10;
/** Nearer to the screen's edge than this a finger belongs to the system, in pixels. */
const systemEdge = 24;
/** Within what time after a finger lets go its click comes, in milliseconds. */
const clickComes = 50;
/** How far a row is pulled until letting go does what it shows, in pixels. */
export const pullFar = 72;
/** Where the sheet, the rail or the week scrolls under what is lifted, in pixels from its edge. */
const scrollZone = 56;

interface May {
  todo: () => Todo;
  lift: () => boolean;
  /** May be pulled sideways; what is not there never is. */
  pull?: () => boolean;
  /** A pull to the right, and one to the left, let go of far enough. */
  right?: () => void;
  left?: () => void;
}

/**
 * What a finger does with a row or slip: after a rest it lifts it, over the same targets as the
 * mouse; sideways it pulls it. `pulled` is how far, in pixels, to the right when positive.
 */
export function useTouchLift(root: Ref<HTMLElement | null>, may: May) {
  const current = useCurrent();
  const pulled = ref(0);
  const lifted = ref(false);
  let mode: "none" | "pressed" | "pull" | "lift" = "none";
  let start = { x: 0, y: 0 };
  let timer: ReturnType<typeof setTimeout> | undefined;
  let resting: ReturnType<typeof setInterval> | undefined;
  let last = { x: 0, y: 0 };
  let slip: HTMLElement | undefined;
  let target: TouchTarget | undefined;

  function down(e: PointerEvent) {
    if (root.value) root.value.draggable = e.pointerType !== "touch" && may.lift();
    if (e.pointerType !== "touch" || !e.isPrimary || mode !== "none") return;
    if (e.target instanceof Element && e.target.closest("input, textarea")) return;
    mode = "pressed";
    start = { x: e.clientX, y: e.clientY };
    if (may.lift()) timer = setTimeout(lift, rests);
  }
  function lift() {
    mode = "lift";
    lifted.value = true;
    current.lifting = true;
    slip = document.createElement("div");
    slip.className = "drag-slip lifted";
    slip.textContent = may.todo().title;
    document.body.append(slip);
    follow(start.x, start.y);
    // A finger that rests near an end goes on scrolling.
    resting = setInterval(() => follow(last.x, last.y), 30);
  }
  function move(e: PointerEvent) {
    if (e.pointerType !== "touch" || mode === "none") return;
    const [dx, dy] = [e.clientX - start.x, e.clientY - start.y];
    if (mode === "lift") return follow(e.clientX, e.clientY);
    if (mode === "pressed") {
      if (Math.hypot(dx, dy) <= strays) return;
      clearTimeout(timer);
      const inside = start.x >= systemEdge && start.x <= innerWidth - systemEdge;
      if (Math.abs(dx) < Math.abs(dy) * 1.5 || !inside || !may.pull?.()) return end();
      mode = "pull";
      root.value?.setPointerCapture(e.pointerId);
    }
    pulled.value = Math.max(-160, Math.min(160, dx));
  }
  function follow(x: number, y: number) {
    if (slip) {
      const left = Math.max(4, Math.min(x - 24, innerWidth - slip.offsetWidth - 4));
      slip.style.transform = `translate(${left}px, ${y - 60}px)`;
    }
    // At the left edge the index comes to meet it.
    if (x < systemEdge) current.index = true;
    const now = touchTargetAt(may.todo(), x, y);
    if (now !== target) target?.leave();
    target = now;
    last = { x, y };
    scroll(document.querySelector(current.index ? ".index" : "main.sheet"), y, "top");
    const rail = document.querySelector(".rail");
    if (rail && y < rail.getBoundingClientRect().bottom) scroll(rail, x, "left");
    const cups = document.querySelector(".cups");
    if (cups && y > cups.getBoundingClientRect().top) scroll(cups, x, "left");
  }
  /** Scrolls what lies under the finger, where that is near an end of it. */
  function scroll(box: Element | null, at: number, way: "top" | "left") {
    if (!box) return;
    const r = box.getBoundingClientRect();
    const [first, last] = way === "top" ? [r.top, r.bottom] : [r.left, r.right];
    const by = at < first ? 0 : at < first + scrollZone ? -12 : at > last - scrollZone ? 12 : 0;
    if (by && at <= last) box.scrollBy({ [way]: by });
  }
  function up(e: PointerEvent) {
    if (e.pointerType !== "touch") return;
    const far = pulled.value;
    if (mode === "lift") {
      target?.drop(may.todo());
      silence(e.timeStamp);
    } else if (mode === "pull") {
      silence(e.timeStamp);
      if (far >= pullFar) may.right?.();
      else if (far <= -pullFar) may.left?.();
    }
    end();
  }
  function end() {
    clearTimeout(timer);
    clearInterval(resting);
    target?.leave();
    target = undefined;
    slip?.remove();
    slip = undefined;
    mode = "none";
    pulled.value = 0;
    if (lifted.value) current.lifting = current.index = false;
    lifted.value = false;
  }
  /**
   * The click that follows at once is no press of the row. It is told by its own time: on
   * a busy page the timer comes late, and a tap elsewhere counts.
   */
  function silence(letGo: number) {
    const eat = (e: Event) => {
      if (e.timeStamp > letGo + clickComes) return;
      e.stopPropagation();
      e.preventDefault();
    };
    document.addEventListener("click", eat, { capture: true, once: true });
    setTimeout(() => document.removeEventListener("click", eat, true), clickComes);
  }
  /** A finger that holds a row scrolls nothing, and asks for no menu of the browser's. */
  function hold(e: Event) {
    if (mode === "lift" || mode === "pull") e.preventDefault();
  }
  function noMenu(e: Event) {
    if (mode !== "none") e.preventDefault();
  }
  let stop = () => {};
  onMounted(() => {
    const el = root.value;
    if (!el) return;
    const heard: [string, EventListener, AddEventListenerOptions?][] = [
      ["pointerdown", down as EventListener],
      ["pointermove", move as EventListener],
      ["pointerup", up as EventListener],
      ["pointercancel", end],
      ["touchmove", hold, { passive: false }],
      ["contextmenu", noMenu],
    ];
    for (const [kind, hears, how] of heard) el.addEventListener(kind, hears, how);
    stop = () => heard.forEach(([kind, hears]) => el.removeEventListener(kind, hears));
  });
  onBeforeUnmount(() => {
    stop();
    end();
  });
  return { pulled, lifted };
}
