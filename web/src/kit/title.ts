import { onBeforeUnmount, onMounted, watch } from "vue";

/** Writes a number before the page's title, whatever the title becomes; 0 writes none. */
export function useCountInTitle(count: () => number) {
  const write = () => {
    const plain = document.title.replace(/^\(\d+\) /, "");
    const wanted = count() > 0 ? `(${count()}) ${plain}` : plain;
    if (document.title !== wanted) document.title = wanted;
  };
  watch(count, write);
  const seen = new MutationObserver(write);
  onMounted(() => {
    write();
    seen.observe(document.head, { childList: true, subtree: true, characterData: true });
  });
  onBeforeUnmount(() => seen.disconnect());
}
