import type { Many, Reach } from "@/server/client";
import { type ChoiceKey, choices } from "./choices";
import { fieldNames } from "./clash";

const choiceVerbs = Object.fromEntries(
  choices.map((c) => [c.field, `Set the ${c.name} of`]),
) as Record<ChoiceKey, string>;

const verbs: Record<Many["do"], string> = {
  ...choiceVerbs,
  complete: "Tick",
  cancel: "Decide against",
  reopen: "Open again",
  start: "Mark as begun",
  delete: "Put in the bin",
  restore: "Restore",
  move: "Move",
  plan: "Plan",
  due: "Set the due of",
  estimate: "Set the estimate of",
  tags: "Tag",
  handful: "Pick for today",
  edit: "Change",
};

const some = (n: number, one: string, more: string) =>
  n === 0 ? [] : [n === 1 ? `1 ${one}` : `${n.toLocaleString("en-GB")} ${more}`];

function confirms(n: number, what: Many["do"]): string {
  const many = n === 1 ? "it" : n.toLocaleString("en-GB");
  return what === "delete" ? `Put ${many} in the bin` : `Change ${many}`;
}

/** What is asked before many are changed: how many they are, and what is among them. */
export function manyQuestion(n: number, what: Pick<Many, "do" | "patch">, reach: Reach) {
  const todos = n === 1 ? "1 to-do" : `${n.toLocaleString("en-GB")} to-dos`;
  const among = [
    ...some(reach.closed, "is closed already", "are closed already"),
    ...some(reach.archived, "is in an archived list", "are in archived lists"),
  ];
  const [field] = Object.keys(what.patch ?? {}) as (keyof typeof fieldNames)[];
  const verb = field ? `Set the ${fieldNames[field]} of` : verbs[what.do];
  return {
    title: what.do === "delete" ? `Put ${todos} in the bin?` : `${verb} ${todos}?`,
    text: [
      ...(among.length ? [`Of these, ${among.join(", and ")}.`] : []),
      "It is one change, and one undo takes it back.",
    ].join(" "),
    confirm: confirms(n, what.do),
  };
}
