import type { Todo, TodoPatch } from "@/server/client";

/** The fields of a to-do whose value is one of a few words. */
export type ChoiceKey = "priority" | "concentration";

export interface Choice {
  field: ChoiceKey;
  /** As a sentence names it; the slip and the bulk bar begin with a capital. */
  name: string;
  /** The values in order, the one that is none first: it is left out where it says nothing. */
  values: ChoiceValue[];
  /** What a filter asks that is not a word: that there is no value, or one. */
  absent?: [none: string, some: string];
}

interface ChoiceValue {
  value: string;
  /** In the slip and in menus. */
  name: string;
  /** The head of its column. */
  column: string;
  /** What a row says of it quietly, if anything. */
  fact?: string;
}

/**
 * Each of these fields, once: the slip's buttons, the bulk bar's menu, the row's fact, the
 * columns, the builder's test and grouping, and the words of messages come of it.
 */
export const choices: Choice[] = [
  {
    field: "priority",
    name: "priority",
    values: [
      { value: "none", name: "None", column: "No priority" },
      { value: "low", name: "Low", column: "Low priority" },
      { value: "medium", name: "Medium", column: "Medium priority" },
      { value: "high", name: "High", column: "High priority" },
    ],
  },
  {
    field: "concentration",
    name: "concentration",
    values: [
      { value: "unset", name: "Unset", column: "Neither deep nor light" },
      { value: "light", name: "Light", column: "Light work", fact: "light work" },
      { value: "deep", name: "Deep", column: "Deep work", fact: "deep work" },
    ],
    absent: ["is unset", "is set"],
  },
];

export const choiceOf = (field: string) => choices.find((c) => c.field === field);

/** The value a to-do has; what it leaves out is the first. */
export const chosen = (c: Choice, todo: Todo): string => todo[c.field] ?? c.values[0]!.value;

/** The edit that gives a to-do a value. */
export const choicePatch = (c: Choice, value: string): TodoPatch =>
  ({ [c.field]: c.absent && value === c.values[0]!.value ? null : value }) as TodoPatch;

export const choiceName = (c: Choice, value: string) =>
  c.values.find((v) => v.value === value)?.name ?? value;

/** One word of each field, by its key. */
export const choiceNames = Object.fromEntries(choices.map((c) => [c.field, c.name])) as Record<
  ChoiceKey,
  string
>;
