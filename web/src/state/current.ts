import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import type { Given, Todo } from "@/server/client";
import type { Happening } from "@/server/calendars";
import type { chooserKinds } from "@/words/layers";

/** What a row's key or a field opened, and where it hangs. */
export interface Chooser {
  kind: (typeof chooserKinds)[number];
  /** The to-do as it was shown; what the server says takes its place. */
  todo?: Todo;
  /** Many at once, instead of one. */
  ids?: string[];
  at: HTMLElement;
}

/** To-dos that are to make room, as they are shown in their preview. */
export interface MakingRoom {
  /** Not there yet while they are being read. */
  ids?: string[];
  /** Where they come from: the name of a view, or "9 chosen". */
  from: string;
  /** Enter was pressed before the preview was there. */
  wished?: boolean;
}

/** To-dos that are given minutes one after the other. */
export interface Walking {
  todos: Todo[];
  /** Which of them it is at, and how many have been given theirs. */
  at: number;
  given: number;
}

/** Lines that were pasted, and where they are to stand. */
export interface PastedLines {
  text: string;
  list?: string | null;
  section?: string;
  parent?: string;
  after?: string;
  given?: Given[];
}

/** A file that waits for its preview. */
export interface IncomingFile {
  /** Another for each, the same file twice included. */
  nth: number;
  file: File;
  /** It came with or after others, so its preview opens when theirs is closed. */
  follows: boolean;
}

/** The element of a row, where it is shown. */
export const rowElement = (id: string | undefined) =>
  id ? document.querySelector<HTMLElement>(`[data-todo="${CSS.escape(id)}"]`) : null;

/** An event that is open, the day on which it was seen, and where it hangs. */
export interface OpenEvent {
  event: Happening;
  day: string;
  at: HTMLElement;
}

/** The row the keys act on, and the chooser that is open. */
export const useCurrent = defineStore("current", () => {
  const row = ref<string>();
  const editing = ref<string>();
  const chooser = shallowRef<Chooser>();
  const helping = ref(false);
  /** The finder of `g` is open. */
  const finding = ref(false);
  /** On a phone: the index is open, and a row is lifted by touch. */
  const index = ref(false);
  const lifting = ref(false);
  /** Counts the wishes to write in the search field. */
  const searching = ref(0);
  /** Counts the wishes to write in the capture line. */
  const capture = ref(0);
  /** The to-do whose slip was opened as it was put in, until that has the focus. */
  const opening = ref<string>();
  /** What a line of the sheet put in last: its row is the current one as soon as it is shown. */
  const putIn = ref<string>();
  /** Several lines that were pasted and wait in their preview. */
  const pasted = shallowRef<PastedLines>();
  /** Files whose to-dos wait in their previews, the first of them shown. */
  const incoming = shallowRef<IncomingFile[]>([]);
  let files = 0;
  function bringIn(more: File[]) {
    const behind = incoming.value.length > 0;
    const next = more.map((file, i) => ({ nth: ++files, file, follows: behind || i > 0 }));
    incoming.value = [...incoming.value, ...next];
  }
  /** The row below which, or under which, something is being put in. */
  const adding = ref<{ row: string; inside: boolean }>();
  const makingRoom = shallowRef<MakingRoom>();
  const walking = shallowRef<Walking>();
  const event = shallowRef<OpenEvent>();
  return {
    row,
    editing,
    chooser,
    helping,
    finding,
    index,
    lifting,
    searching,
    capture,
    opening,
    putIn,
    pasted,
    incoming,
    bringIn,
    adding,
    makingRoom,
    walking,
    event,
  };
});
