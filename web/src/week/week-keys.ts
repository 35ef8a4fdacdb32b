import { nextTick, type Ref } from "vue";
import { useActions } from "@/server/actions";
import type { Overview } from "@/server/client";
import type { Proposal, Week, WeekSlip } from "@/server/week";
import { cupOfDigit, useKeys } from "@/state/keys";
import { addDays } from "@/words/dates";

interface May {
  week: Ref<Week | undefined>;
  overview: Ref<Overview | undefined>;
  proposed: (id: string) => Proposal | undefined;
  plan: (id: string, horizon: string | null) => void;
  take: (id: string) => void;
  openSlip: (id: string) => void;
  turn: (weeks: number) => void;
}

/** By how much `+` and `-` change minutes, and the least they leave. */
const quarter = 15;

/**
 * The keys of the week: arrows go from slip to slip and cup to cup, digits place as on the
 * rail, `<` and `>` move a day, `+` and `-` change minutes, `.` takes a proposal.
 */
export function useWeekKeys(may: May) {
  const actions = useActions();

  /** Columns from left to right, each from the top down: what is to place, and the cups. */
  function columns(): { day?: string; slips: WeekSlip[] }[] {
    const week = may.week.value;
    if (!week) return [];
    return [
      { slips: week.loose },
      ...week.days.map((d) => ({ day: d.day, slips: d.slips.slice().reverse() })),
    ];
  }
  const element = (id: string) =>
    document.querySelector<HTMLElement>(`.page [data-todo="${CSS.escape(id)}"]`);
  const drawn = (all: WeekSlip[]) => all.filter((s) => element(s.todo.id));

  /** The slip that has the focus, and where it lies. */
  function focused() {
    const id = document.activeElement?.closest<HTMLElement>(".page [data-todo]")?.dataset.todo;
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
  /** Keeps the focus on a slip that moves to another cup. */
  async function follow(id: string, work: () => void) {
    const before = element(id);
    work();
    for (let n = 0; n < 50; n++) {
      await nextTick();
      await new Promise((done) => setTimeout(done, 40));
      const now = element(id);
      if (now && now !== before) {
        if (document.activeElement === document.body) now.focus();
        return;
      }
    }
  }

  useKeys((press) => {
    if (/^Arrow(Up|Down|Left|Right)$/.test(press)) {
      step(press);
      return true;
    }
    const here = focused();
    if (!here) return false;
    const { todo } = here.slip;
    if (/^\d$/.test(press)) {
      const cup = cupOfDigit(may.overview.value, press);
      if (cup) void follow(todo.id, () => may.plan(todo.id, cup.horizon));
      return true;
    }
    switch (press) {
      case "<":
      case ">": {
        const from = here.day ?? may.week.value?.today ?? "";
        const by = here.day ? (press === ">" ? 1 : -1) : 0;
        void follow(todo.id, () => may.plan(todo.id, addDays(from, by)));
        return true;
      }
      case "+":
      case "-": {
        const minutes = here.slip.minutes + (press === "+" ? quarter : -quarter);
        actions.inTurn(todo, (fresh) =>
          actions.edit(fresh, { estimate: Math.max(minutes, quarter) }),
        );
        return true;
      }
      case ".":
        if (may.proposed(todo.id)) void follow(todo.id, () => may.take(todo.id));
        return true;
      case " ":
        void actions.tick(todo);
        return true;
    }
    return false;
  });
}
