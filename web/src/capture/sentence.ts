import { computed, nextTick, reactive, ref, type Ref, watch } from "vue";
import type { Chip, Overview, SentenceOffer } from "@/server/client";
import { offered, reword, useReading } from "@/server/reading";
import { useCompletion } from "./completion";
import { piecesOf } from "./pieces";

/** A chip with its chooser open; of an offer, the sentence without its words. */
interface Opened {
  chip: Chip;
  at: HTMLElement;
  without?: string;
}

/** Chips whose value is chosen by hand; the words of others are written anew. */
const chosen = new Set(["due", "start", "plan", "list", "priority", "repeat"]);

/**
 * A sentence while it is typed: what was read of it, what is offered, the names that would
 * complete it, and what keys and presses do to its words.
 * @param input where it is typed, once that is there
 */
export function useSentence(
  text: Ref<string>,
  input: () => HTMLInputElement | HTMLTextAreaElement | undefined,
  overview: Ref<Overview | undefined>,
) {
  const reading = useReading(text);
  const caret = ref(0);
  const names = useCompletion(text, caret, overview);
  const opened = ref<Opened>();
  /** The sentence whose offers Esc has set aside. */
  const aside = ref("");
  /** Offers of the words as they stand: one of older words would bring those back. */
  const offers = computed(() =>
    reading.value && reading.value.text === text.value && aside.value !== text.value
      ? reading.value.offers
      : [],
  );
  const pieces = computed(() => piecesOf(text.value, reading.value, offers.value));
  /** Tab was pressed on words whose reading is on its way: its offer is meant. */
  const wished = ref("");
  watch(offers, ([offer]) => {
    if (offer && wished.value === text.value && document.activeElement === input()) take(offer);
  });

  async function write(to: string, at = to.length) {
    text.value = to;
    await nextTick();
    input()?.focus();
    input()?.setSelectionRange(at, at);
    caret.value = at;
  }
  function complete(nth: number) {
    const c = names.found.value[nth];
    if (c) void write(c.text, c.caret);
  }
  /** Takes an offer: its sentence, or its chooser where what it means is chosen first. */
  function take(offer: SentenceOffer, at?: HTMLElement) {
    if (offer.choose === undefined) return void write(offer.taken);
    const { field, words, value, spans } = offer;
    opened.value = {
      chip: { field, words, value, spans, without: "" },
      at: at ?? input() ?? document.body,
      without: offer.choose,
    };
  }
  function tab(e: KeyboardEvent) {
    const [offer] = offers.value;
    const late = text.value.trim() !== "" && reading.value?.text !== text.value;
    // Once: a second Tab goes on, whether the server answers or not.
    if (late && !names.found.value.length && wished.value !== text.value) {
      wished.value = text.value;
      return e.preventDefault();
    }
    if (!names.found.value.length && !offer) return;
    e.preventDefault();
    if (names.found.value.length) complete(Math.max(names.at.value, 0));
    else if (offer) take(offer);
  }
  /** Sets aside what stands in the way; false where nothing does. */
  function setAside(): boolean {
    if (names.found.value.length) names.dismiss();
    else if (offers.value.length) aside.value = text.value;
    else return false;
    return true;
  }
  /** After a Tab whose offer is still on its way, Enter puts in what the offer says. */
  function meant() {
    const ahead = wished.value === text.value && reading.value?.text !== text.value;
    return ahead ? offered : undefined;
  }
  /** A chip that is opened: its chooser, or else its words to write anew. */
  function openChip(chip: Chip, at: HTMLElement) {
    if (chosen.has(chip.field)) {
      opened.value = { chip, at };
      return;
    }
    const span = chip.spans[0];
    input()?.focus();
    if (span) input()?.setSelectionRange(span.start, span.end);
  }
  /** What was chosen for the open chip, in words; undefined leaves it. */
  function rewordChip(words: string | undefined) {
    const { chip, without } = opened.value ?? {};
    opened.value = undefined;
    if (without !== undefined && words) void write(`${without}, ${words}`);
    else if (without !== undefined) input()?.focus();
    else if (chip && words !== undefined && reading.value) {
      void write(reword(reading.value.text, chip.spans, words));
    } else input()?.focus();
  }

  return reactive({
    text,
    reading,
    caret,
    names,
    offers,
    pieces,
    opened,
    write,
    complete,
    take,
    tab,
    setAside,
    meant,
    openChip,
    rewordChip,
  });
}

export type Sentence = ReturnType<typeof useSentence>;

/**
 * Arrows walk over the chips, offers and examples under a line, and back to it.
 * @param under the part that has them
 */
export function walkBelow(e: KeyboardEvent, under: HTMLElement | null, back: () => void) {
  const buttons = [...(under?.querySelectorAll<HTMLElement>("[data-walk]") ?? [])];
  const at = buttons.indexOf(document.activeElement as HTMLElement);
  const by = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[e.key];
  if (e.key === "Escape" || (by === -1 && at === 0)) back();
  else if (by) buttons[Math.min(at + by, buttons.length - 1)]?.focus();
  else return;
  e.preventDefault();
  e.stopPropagation();
}
