import { ref } from "vue";

/**
 * What is dropped or pasted on the capture line: pictures and files go with the to-do, and
 * several lines of text are shown as a tree before they are put in.
 */
export function useGiven(files: (some: File[]) => void, lines: (text: string) => void) {
  /** Files are held over the line. */
  const over = ref(false);
  function given(data: DataTransfer | null) {
    const some = [...(data?.files ?? [])];
    if (some.length) files(some);
    return some.length > 0;
  }
  function drop(e: DragEvent) {
    over.value = false;
    if (given(e.dataTransfer)) e.preventDefault();
  }
  function dragOver(e: DragEvent) {
    if (!e.dataTransfer?.types.includes("Files")) return;
    e.preventDefault();
    over.value = true;
  }
  function paste(e: ClipboardEvent) {
    if (given(e.clipboardData)) return e.preventDefault();
    const pasted = e.clipboardData?.getData("text/plain") ?? "";
    const said = pasted.split(/\r\n|\r|\n/).filter((line) => line.trim());
    if (said.length < 2) return;
    e.preventDefault();
    lines(pasted);
  }
  return { over, drop, dragOver, paste };
}
