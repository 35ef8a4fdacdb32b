import { ref } from "vue";

/** Pasted text of several lines, which is then not pasted into the field; "" for one line. */
export function severalLines(e: ClipboardEvent): string {
  const pasted = e.clipboardData?.getData("text/plain") ?? "";
  if (pasted.split(/\r\n|\r|\n/).filter((line) => line.trim()).length < 2) return "";
  e.preventDefault();
  return pasted;
}

/**
 * What is dropped or pasted on the capture line: pictures and files go with the to-do, and
 * several lines of text are shown as a tree before they are put in.
 */
export function useBrought(files: (some: File[]) => void, lines: (text: string) => void) {
  /** Files are held over the line. */
  const over = ref(false);
  function brought(data: DataTransfer | null) {
    const some = [...(data?.files ?? [])];
    if (some.length) files(some);
    return some.length > 0;
  }
  function drop(e: DragEvent) {
    over.value = false;
    if (brought(e.dataTransfer)) e.preventDefault();
  }
  function dragOver(e: DragEvent) {
    if (!e.dataTransfer?.types.includes("Files")) return;
    e.preventDefault();
    over.value = true;
  }
  function paste(e: ClipboardEvent) {
    if (brought(e.clipboardData)) return e.preventDefault();
    const several = severalLines(e);
    if (several) lines(several);
  }
  return { over, drop, dragOver, paste };
}
