import { useEventListener } from "@vueuse/core";
import { nextTick, ref } from "vue";

/** The sheet is being printed: all its rows stand in the page, not only those in sight. */
export const printing = ref(false);

/** Lets the page be printed as a sheet, also from the browser's own menu. */
export function usePrinting() {
  useEventListener(window, "beforeprint", () => (printing.value = true));
  useEventListener(window, "afterprint", () => {
    printing.value = false;
    delete document.documentElement.dataset.printColumns;
  });
}

/**
 * Prints the sheet.
 * @param columns how many columns its rows stand in, 1 or 2
 * @param ready waits until every row is read
 */
export async function printSheet(columns: 1 | 2, ready: () => Promise<unknown>) {
  document.documentElement.dataset.printColumns = String(columns);
  await ready();
  printing.value = true;
  await nextTick();
  window.print();
}
