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
}

export const useAsk = defineStore("ask", () => {
  const question = shallowRef<Question>();
  const ask = (q: Question) => (question.value = q);
  return { question, ask };
});
