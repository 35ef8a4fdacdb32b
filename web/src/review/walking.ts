import { computed, type Ref, ref, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useActions } from "@/server/actions";
import type { Overview, Row } from "@/server/client";
import { useFinishReview, useReview } from "@/server/review";
import { useServer } from "@/server/server";
import { useCurrent } from "@/state/current";
import { cupOfDigit, useKeys } from "@/state/keys";
import { type Act, actKeys, type StepKind, steps, type Walk } from "@/words/review";
import { useProgress } from "./progress";

/** How many rows of a walk are read at once, as many as the server gives. */
const most = 1000;

/**
 * A walk under way: its steps, the one to-do that is asked about, and what is done to it by
 * buttons and keys. What is decided leaves at once; what could not be kept comes back.
 */
export function useWalking(walk: Ref<Walk | undefined>, overview: Ref<Overview | undefined>) {
  const route = useRoute();
  const router = useRouter();
  const actions = useActions();
  const current = useCurrent();
  const server = useServer();
  const finish = useFinishReview();
  const today = computed(() => overview.value?.today ?? "");
  const { progress, settled, settle, reopen, follow, forget, acts, resumed } = useProgress(
    walk,
    today,
  );
  const offset = ref(0);
  const { data: view, error, refetch } = useReview(walk, offset);
  const groups = computed(() => view.value?.groups ?? []);
  watch(view, (v) => v && follow(v.groups, v.total <= most), { immediate: true });
  /**
   * The to-do that is asked about. It stays before the eyes until it is decided or is gone:
   * what comes in meanwhile, or could not be kept, waits for its turn.
   */
  const askedAbout = ref<string>();
  // What is undone here is asked about again at once, also where it never was seen to be gone.
  watch(
    () => server.undone,
    (todos) => {
      const back = todos.find(settled);
      todos.forEach(reopen);
      if (back) askedAbout.value = back;
    },
  );

  /** What is left of each step, as far as its rows are read. */
  const rest = (kind: StepKind) =>
    (groups.value.find((g) => g.kind === kind)?.rows ?? []).filter((r) => !settled(r.todo.id));
  /** How many are left of it: of those that are not read, all. */
  function left(kind: StepKind) {
    const g = groups.value.find((one) => one.kind === kind);
    return g ? g.count - g.rows.filter((r) => settled(r.todo.id)).length : 0;
  }
  const order = computed(() => groups.value.map((g) => g.kind));
  /** The step of what is asked about, the one that was chosen, or the next with something left. */
  const step = computed(() => {
    const now = order.value.find((kind) => rest(kind).some((r) => r.todo.id === askedAbout.value));
    if (now) return now;
    const chosen = progress.value.step;
    if (chosen && left(chosen) > 0) return chosen;
    const at = chosen ? order.value.indexOf(chosen) : -1;
    const after = [...order.value.slice(at + 1), ...order.value.slice(0, Math.max(at, 0))];
    return after.find((kind) => left(kind) > 0);
  });
  const rows = computed(() => (step.value ? rest(step.value) : []));
  const writing = ref(false);
  const row = computed<Row | undefined>(
    (before) =>
      rows.value.find((r) => r.todo.id === askedAbout.value) ??
      (writing.value ? before : rows.value[0]),
  );
  watch(
    () => row.value?.todo.id,
    (id) => (askedAbout.value = id),
    { flush: "sync" },
  );
  const then = computed(() => rows.value.filter((r) => r.todo.id !== row.value?.todo.id));
  watch(step, (kind) => kind && (progress.value.step = kind));
  // Of many, those of the step that is walked are read.
  watch([step, groups], () => {
    if (!step.value || !view.value || view.value.total <= most) return (offset.value = 0);
    let before = 0;
    for (const g of groups.value) {
      if (g.kind === step.value) break;
      before += g.count;
    }
    offset.value = before;
  });
  const go = (kind: StepKind | undefined) => {
    writing.value = false;
    if (!kind) return;
    askedAbout.value = undefined;
    progress.value.step = kind;
  };
  function beside(by: number) {
    const open = order.value.filter((kind) => left(kind) > 0);
    const at = open.indexOf(step.value ?? open[0]!);
    go(open[at + by]);
  }
  const level = (kind: StepKind) => {
    const most = Math.max(progress.value.most[kind] ?? 0, 1);
    return Math.min(left(kind) / most, 1);
  };

  /** Does one act to one to-do, and goes on at once; what is not kept is asked about again. */
  async function act(one: Act, at?: HTMLElement) {
    const r = row.value;
    if (!r) return;
    const { todo } = r;
    if (one === "next-action") {
      writing.value = true;
      return;
    }
    if (one === "list" || one === "due" || one === "plan") {
      choosing.value = { row: r, act: one };
      current.chooser = {
        kind: one,
        todo,
        at: at ?? document.querySelector<HTMLElement>(".card")!,
      };
      return;
    }
    settle(r, one);
    if (!(await kept(one, r))) reopen(todo.id);
  }
  function kept(one: Act, { todo }: Row): Promise<boolean | undefined> | boolean {
    const cup = cupOfDigit(overview.value, actKeys[one].press);
    if (/^\d$/.test(actKeys[one].press))
      return cup ? actions.plan(todo, cup.horizon) : Promise.resolve(undefined);
    switch (one) {
      case "this-month":
        return actions.plan(todo, today.value.slice(0, 7));
      case "tick":
        return actions.run(todo.id, "complete");
      case "let-go":
        return actions.run(todo.id, "cancel");
      case "keep":
        return actions.run(todo.id, "keep");
      case "bin":
        return actions.remove(todo);
      case "handful":
        return actions.pick(todo, true);
      case "take-back":
        return actions.edit(todo, { person: null });
    }
    return true; // it is left as it is
  }
  /** A chooser is open; once what it chose is kept, the to-do is decided. */
  const choosing = ref<{ row: Row; act: Act }>();
  watch(view, (v) => {
    const c = choosing.value;
    if (!c || !v) return;
    const now = v.groups.flatMap((g) => g.rows).find((r) => r.todo.id === c.row.todo.id);
    if (now && now.todo.revision <= c.row.todo.revision) return;
    choosing.value = undefined;
    settle(c.row, c.act);
  });
  /** The next action was put in, or the person has left its line. */
  function written(put: boolean) {
    const r = row.value;
    writing.value = false;
    if (put && r) settle(r, "next-action");
  }
  const openSlip = () => {
    if (row.value)
      void router.replace({ ...route, query: { ...route.query, slip: row.value.todo.id } });
  };
  useKeys((press) => {
    if (press === "Enter" && over.value && walk.value) {
      if (document.activeElement?.matches("button, a")) return false;
      void end();
      return true;
    }
    if (!row.value || !step.value || writing.value) return false;
    if (press === "<" || press === ">") {
      beside(press === "<" ? -1 : 1);
      return true;
    }
    if (press === "Enter") {
      if (document.activeElement?.matches("button, a")) return false;
      openSlip();
      return true;
    }
    if (press === " " && document.activeElement?.matches("button, a")) return false;
    const fits = steps[step.value]?.acts.find((one) => actKeys[one].press === press);
    if (fits) {
      void act(fits);
      return true;
    }
    if (!/^\d$/.test(press)) return false;
    const cup = cupOfDigit(overview.value, press);
    const r = row.value;
    if (cup) {
      settle(r, "today");
      void Promise.resolve(actions.plan(r.todo, cup.horizon)).then((ok) => ok || reopen(r.todo.id));
    }
    return true;
  });

  const minutes = computed(() => Math.round(progress.value.seconds / 60));
  const over = computed(() => view.value && order.value.every((kind) => left(kind) === 0));
  async function end() {
    if (!walk.value) return;
    if (!(await finish(walk.value, { decided: acts.value.length, minutes: minutes.value }))) return;
    forget();
    void router.push("/review");
  }
  return {
    query: { view, error, refetch },
    steps: { order, left, level, step, go },
    asked: { row, then, writing, act, written, openSlip },
    told: { acts, minutes, over, resumed, forget, end },
  };
}
