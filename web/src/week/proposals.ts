import { computed, type Ref, ref, watch } from "vue";
import { useActions } from "@/server/actions";
import { useLaidHours, useLevel, usePlanEach, type Week } from "@/server/week";

/** What is proposed: days for a week, or times for one day of it. */
type Wish = { for: "days" } | { for: "hours"; day: string };

/**
 * Proposals of days or of hours, while they are wished for. They change nothing until they
 * are taken, one by one or all.
 */
export function useProposals(of: Ref<string | undefined>, week: Ref<Week | undefined>) {
  const actions = useActions();
  const planEach = usePlanEach();
  const wish = ref<Wish>();
  const away = () => (wish.value = undefined);
  watch(of, away); // another week has not been asked about
  const level = useLevel(
    of,
    computed(() => wish.value?.for === "days"),
  );
  const dayOf = computed(() => (wish.value?.for === "hours" ? wish.value.day : undefined));
  const laid = useLaidHours(dayOf);

  const slips = computed(() => {
    const days = week.value?.days.flatMap((d) => d.slips.map((s) => [s, d.day] as const)) ?? [];
    const loose = week.value?.loose.map((s) => [s, undefined] as const) ?? [];
    return new Map([...days, ...loose].map(([slip, day]) => [slip.todo.id, { slip, day }]));
  });
  /** The plans that would move something, by to-do. */
  const plans = computed(() => {
    const all: [string, string][] =
      wish.value?.for === "days"
        ? (level.data.value?.proposals ?? []).map((p) => [p.id, p.day])
        : (laid.data.value?.proposals ?? []).map((p) => [p.id, p.plan]);
    if (!wish.value) return new Map<string, string>();
    return new Map(
      all.filter(([id, plan]) => {
        const there = slips.value.get(id);
        return there && (plan.length > 10 ? there.slip.todo.plan !== plan : there.day !== plan);
      }),
    );
  });
  /** What would come to a day from elsewhere. */
  const onto = (day: string) =>
    [...plans.value].filter(([, plan]) => plan === day).map(([id]) => slips.value.get(id)!.slip);
  const tooLong = computed(() =>
    wish.value?.for === "days" ? (level.data.value?.tooLong ?? []) : [],
  );
  const says = computed(() => {
    if (!wish.value) return "";
    const asked = wish.value.for === "days" ? level : laid;
    if (asked.error.value) return "Nothing could be proposed. Try again.";
    if (!asked.data.value) return wish.value.for === "days" ? "Levelling…" : "Laying out…";
    return asked.data.value.says;
  });
  const take = (id: string) => {
    const plan = plans.value.get(id);
    if (plan) void actions.plan({ id }, plan);
    return plan !== undefined;
  };
  async function takeAll() {
    if (await planEach([...plans.value].map(([id, plan]) => ({ id, plan })))) away();
  }
  const turn = () => (wish.value = wish.value?.for === "days" ? undefined : { for: "days" });
  const layOut = (day: string) => (wish.value = { for: "hours", day });
  return { wish, plans, onto, tooLong, says, take, takeAll, turn, layOut, away };
}
