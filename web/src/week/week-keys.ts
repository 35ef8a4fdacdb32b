import { useEventListener } from "@vueuse/core";
import { computed, type InjectionKey, nextTick, ref, type Ref, watch } from "vue";
import { useActions } from "@/server/actions";
import type { Overview } from "@/server/client";
import type { Week, WeekDay, WeekSlip } from "@/server/week";
import { useCurrent } from "@/state/current";
import { useHandedOn } from "@/state/handed-on";
import { cupOfDigit, useKeys } from "@/state/keys";
import { useToasts } from "@/kit/toasts";
import { isRowKey, whyNot } from "@/words/keys";
import { firstFree, lengthOf, planAt, planBeside, quarter, slotOf } from "./hours";
import { besideOf, hourlyOf, lengthened, mostSlips, workOf } from "./layout";

/** The slip that Tab comes to: the others are reached from it by arrows. */
export const tabStop: InjectionKey<Ref<string | undefined>> = Symbol("tab stop");

interface May {
  week: Ref<Week | undefined>;
  /** What is to place, and the days as they are drawn: with what was just ticked. */
  loose: Ref<WeekSlip[]>;
  days: Ref<WeekDay[]>;
  overview: Ref<Overview | undefined>;
  /** Whether the cup of a day shows its hours. */
  opened: (day: string) => boolean;
  /** Plans a slip; true once that is kept. */
  plan: (id: string, horizon: string | null) => Promise<boolean | undefined>;
  /** Takes what is proposed for a slip; false where nothing is. */
  take: (id: string) => boolean;
  turnCup: (day: string) => void;
  ownHours: (day: string, at: HTMLElement) => void;
}

/** What a slip's keys open: the same as a row's. */
const opens = { d: "due", l: "list", m: "minutes", r: "repeat", t: "tags" } as const;
const levels = ["none", "low", "medium", "high"] as const;

/** The slips of a day from the top down, as they are drawn. */
function downward(d: WeekDay, opened: boolean): WeekSlip[] {
  if (!opened) return [...workOf(d).reverse(), ...besideOf(d)];
  const slips = hourlyOf(d);
  const timed = slips.filter((s) => slotOf(s.todo.plan, d.day));
  return [...timed, ...slips.filter((s) => !timed.includes(s))];
}

/**
 * The keys of the week: arrows go from slip to slip and cup to cup, digits place as on the
 * rail, `<` and `>` move a day, Alt with up and down a quarter of an hour, `+` and `-` change
 * minutes, `.` takes a proposal, `o` opens a cup, `w` gives its day hours of its own.
 */
export function useWeekKeys(may: May) {
  const actions = useActions();
  const current = useCurrent();
  const toasts = useToasts();

  /** Columns from left to right, each from the top down: what is to place, and the cups. */
  function columns(): { day?: string; slips: WeekSlip[] }[] {
    return [
      { slips: may.loose.value },
      ...may.days.value.map((d) => ({ day: d.day, slips: downward(d, may.opened(d.day)) })),
    ];
  }
  /** The slip that had the focus last, and where it lay. */
  const last = ref<{ id: string; column: number; at: number }>();
  const { handOn, settling } = useHandedOn();
  const element = (id: string) =>
    document.querySelector<HTMLElement>(`.page [data-todo="${CSS.escape(id)}"]`);
  const drawn = (all: WeekSlip[]) => all.filter((s) => element(s.todo.id));

  /** The slip that has the focus, or had it until it went on its way, and where it lies. */
  function focused() {
    const active = document.activeElement;
    const id =
      active?.closest<HTMLElement>(".page [data-todo]")?.dataset.todo ??
      (active === document.body ? last.value?.id : undefined);
    if (!id) return undefined;
    const all = columns();
    for (const [column, of] of all.entries()) {
      const at = drawn(of.slips).findIndex((s) => s.todo.id === id);
      if (at >= 0) return { slip: drawn(of.slips)[at]!, day: of.day, column, at };
    }
    return undefined;
  }
  function go(to: WeekSlip | undefined) {
    if (to) element(to.todo.id)?.focus();
  }
  /** The first slip of today, or of the next column that has one. */
  function begin() {
    const all = columns();
    const from = Math.max(
      0,
      all.findIndex((c) => c.day === may.week.value?.today),
    );
    go([...all.slice(from), ...all.slice(0, from)].flatMap((c) => drawn(c.slips))[0]);
  }
  function step(press: string) {
    const here = focused();
    if (!here) return begin();
    const all = columns();
    if (press === "ArrowUp" || press === "ArrowDown") {
      const slips = drawn(all[here.column]!.slips);
      return go(slips[here.at + (press === "ArrowDown" ? 1 : -1)]);
    }
    const by = press === "ArrowRight" ? 1 : -1;
    for (let c = here.column + by; c >= 0 && c < all.length; c += by) {
      const slips = drawn(all[c]!.slips);
      if (slips.length) return go(slips[Math.min(here.at, slips.length - 1)]);
    }
  }
  useEventListener(document, "focusin", () => {
    const here = focused();
    if (here) last.value = { id: here.slip.todo.id, column: here.column, at: here.at };
  });
  // A slip that moves takes the focus along; one that leaves hands it to what lay beside it.
  watch(may.days, async () => {
    await nextTick();
    const was = last.value;
    if (!was || document.activeElement !== document.body) return;
    const same = element(was.id);
    if (same) return same.focus();
    handOn();
    const beside = drawn(columns()[was.column]?.slips ?? []);
    go(beside[Math.min(was.at, beside.length - 1)]);
  });
  /** Moves the time of a slip by some minutes; one that has none gets the first that is free. */
  function shift(slip: WeekSlip, day: string, by: number) {
    const { id } = slip.todo;
    const d = may.week.value?.days.find((one) => one.day === day);
    if (!d || !may.week.value) return;
    const others = d.slips.flatMap((s) => slotOf(s.todo.plan, day) ?? []);
    const free = firstFree(d, others, slip.minutes || 30, may.week.value.now, slip.hours);
    actions.inTurn(slip.todo, async (fresh) => {
      const slot = slotOf(fresh.plan, day);
      const at = slot ? Math.max(0, Math.min(slot.at + by, 1425)) : free;
      if (at !== undefined)
        await may.plan(id, planAt(day, { at, minutes: slot?.minutes ?? (slip.minutes || 30) }));
    });
  }
  /** Plans a slip, after what was asked for it before. */
  function lay(slip: WeekSlip, horizon: string) {
    actions.inTurn(slip.todo, () => may.plan(slip.todo.id, horizon));
  }

  useKeys((press) => {
    if (/^(Arrow(Up|Down|Left|Right)|j|k)$/.test(press)) {
      step({ j: "ArrowDown", k: "ArrowUp" }[press] ?? press);
      return true;
    }
    const here = focused();
    const day = here?.day ?? may.week.value?.today ?? "";
    if (press === "o") {
      may.turnCup(day);
      // It is drawn anew: the focus goes along, or to the first where the slip is not drawn.
      if (here)
        void nextTick(() => {
          const there = element(here.slip.todo.id);
          go(there ? here.slip : drawn(columns()[here.column]?.slips ?? [])[0]);
        });
      return true;
    }
    if (press === "w") {
      const at = document.querySelector<HTMLElement>(`[data-day="${day}"] .name`);
      if (at && day >= (may.week.value?.today ?? "")) may.ownHours(day, at);
      return true;
    }
    const refused = {
      f: whyNot.noNarrow,
      s: whyNot.noRoom,
      e: whyNot.noTitle,
      x: whyNot.noSelecting,
      "Shift+M": whyNot.noMinutesWalk,
    }[press];
    const event = document.activeElement?.closest(".page .event");
    if (event && press !== " " && (isRowKey(press) || /^[<>+.-]$/.test(press))) {
      toasts.show({ text: whyNot.anEvent });
      return true;
    }
    if (refused && (here || /^(f|s|Shift\+M)$/.test(press))) {
      toasts.show({ text: refused });
      return true;
    }
    if (!here) {
      const at = document.activeElement;
      if (!isRowKey(press) || (at && at !== document.body)) return false;
      toasts.show({ text: whyNot.noRow });
      return true;
    }
    if (settling()) return true;
    const { todo } = here.slip;
    if (press === "Alt+ArrowUp" || press === "Alt+ArrowDown") {
      if (here.day) shift(here.slip, here.day, press === "Alt+ArrowUp" ? -quarter : quarter);
      return true;
    }
    if (/^\d$/.test(press)) {
      const cup = cupOfDigit(may.overview.value, press);
      if (cup) lay(here.slip, cup.horizon);
      return true;
    }
    if (press in opens) {
      const at = element(todo.id);
      if (at) current.chooser = { kind: opens[press as keyof typeof opens], todo, at };
      return true;
    }
    switch (press) {
      case "h":
        actions.inTurn(todo, (fresh) =>
          actions.pick(fresh, fresh.handful !== may.week.value?.today),
        );
        return true;
      case "p":
      case "Shift+P":
        actions.inTurn(todo, (fresh) => {
          const priority = levels[levels.indexOf(fresh.priority) + (press === "p" ? 1 : -1)];
          if (priority) return actions.edit(fresh, { priority });
          toasts.show({ text: press === "p" ? whyNot.highest : whyNot.lowest });
          return Promise.resolve(undefined);
        });
        return true;
      case "Delete":
        void actions.remove(todo);
        return true;
      case "<":
      case ">": {
        const by = press === ">" ? 1 : -1;
        const today = may.week.value?.today ?? "";
        actions.inTurn(todo, async (fresh) => {
          const to = planBeside(fresh.plan, by, here.day, today);
          if (to) await may.plan(todo.id, to);
          else toasts.show({ text: "Nothing is planned for a day that is past." });
        });
        return true;
      }
      case "+":
      case "-": {
        const by = press === "+" ? quarter : -quarter;
        actions.inTurn(todo, (fresh) => {
          const minutes = lengthOf(fresh.plan) ?? (fresh.estimate || here.slip.minutes);
          return actions.edit(fresh, lengthened(fresh, minutes + by));
        });
        return true;
      }
      case ".":
        if (!may.take(todo.id)) toasts.show({ text: whyNot.noProposal });
        return true;
      case " ":
        void actions.tick(todo);
        return true;
    }
    return false;
  });

  const first = computed(() => {
    const all = columns();
    const today = all.findIndex((c) => c.day === may.week.value?.today);
    return [...all.slice(Math.max(today, 0)), ...all].flatMap((c) =>
      c.slips.slice(0, mostSlips),
    )[0];
  });
  const stop = computed(() => {
    const there = columns().some((c) => c.slips.some((s) => s.todo.id === last.value?.id));
    return there ? last.value?.id : first.value?.todo.id;
  });
  return { stop };
}
