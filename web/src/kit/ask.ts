import { defineStore } from "pinia";
import { shallowRef } from "vue";

/** One thing to fill in. */
export interface Field {
  key: string;
  label: string;
  kind: "text" | "lines" | "date" | "choice" | "colour";
  value: string;
  /** Of a choice: the values and their names. */
  options?: { value: string; name: string }[];
  hint?: string;
}

/** A small dialog: what it asks, and what is done with the answers. */
export interface Question {
  title: string;
  text?: string;
  fields: Field[];
  confirm: string;
  /** Carries it out; what it throws is shown, and the dialog stays. */
  act: (answers: Record<string, string>) => Promise<void>;
  /** It was put away; after `act` too. */
  refused?: () => void;
}

export const useAsk = defineStore("ask", () => {
  const question = shallowRef<Question>();
  const ask = (q: Question) => (question.value = q);
  /** Asks whether something is to be done; false where the dialog is put away. */
  const agree = (q: Pick<Question, "title" | "text" | "confirm">) =>
    new Promise<boolean>((answer) =>
      ask({ ...q, fields: [], act: async () => answer(true), refused: () => answer(false) }),
    );
  return { question, ask, agree };
});
