import { computed, type Ref } from "vue";
import { useRoute } from "vue-router";
import type { Given, List, Shelf } from "@/server/client";
import type { Source } from "@/server/queries";
import { rowElement, useCurrent } from "@/state/current";
import type { ShownGroup } from "./shown";

/** The line that puts something into what a sheet shows, where that can take something. */
export function useSheetLine(
  source: Ref<Source>,
  at: Ref<{ list?: List; shelf?: Shelf }>,
  name: Ref<string>,
  view: Ref<{ gives?: Given[] } | undefined>,
) {
  const route = useRoute();
  const current = useCurrent();

  /** A list that was made just now takes what is typed next. */
  const isNew = computed(
    () => source.value.kind === "list" && current.adding?.row === source.value.list,
  );
  const line = computed(() => {
    const kind = source.value.kind;
    const takes = ["list", "shelf", "tag", "person", "place", "own", "rail"].includes(kind);
    const among = at.value.shelf?.lists ?? [];
    if (!takes || at.value.list?.archived || (at.value.shelf && !among.length)) return undefined;
    return {
      line: route.path,
      label: `Put into ${name.value}`,
      placeholder: `Put into ${name.value}`,
      into: {},
      given: view.value?.gives ?? [],
      now: isNew.value,
      ...(among.length > 1 && { among }),
    };
  });
  /** A section's own line gives the section besides. */
  const sectionGiven = (group: ShownGroup): Given => ({
    field: "section",
    value: group.of ?? "",
    text: group.name ?? "",
  });
  /** The keys are the current row's again: that which was put in, where it is shown. */
  function leaveLine() {
    current.adding = undefined; // a line that was asked for has had the focus
    (document.activeElement as HTMLElement | null)?.blur();
    rowElement(current.row)?.focus();
  }
  return { line, sectionGiven, leaveLine };
}
