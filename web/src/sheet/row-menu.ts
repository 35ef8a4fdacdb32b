import { inject } from "vue";
import type { Row } from "@/server/client";
import { useActions } from "@/server/actions";
import { sheetKey } from "./arrange";
import { type Chooser, useCurrent } from "@/state/current";
import { useLinger } from "@/server/linger";
import { type MenuItem, useMenu } from "@/kit/menu";
import { useSelection } from "@/kit/selection";
import { useToasts } from "@/kit/toasts";

/** What a row offers behind its dots, and the few acts that a pull to the left offers. */
export function useRowMenu(
  row: () => Row,
  at: () => HTMLElement | null,
  today: () => string,
  arranges: () => boolean,
) {
  const actions = useActions();
  const current = useCurrent();
  const linger = useLinger();
  const menus = useMenu();
  const selection = useSelection();
  const toasts = useToasts();
  const sheet = inject(sheetKey);

  function choose(kind: Chooser["kind"]) {
    const hung = at();
    if (hung) current.chooser = { kind, todo: row().todo, at: hung };
  }
  const bin = (): MenuItem => ({
    name: "Put in the bin",
    act: () => actions.remove(row().todo),
  });
  const dates = (): MenuItem[] => [
    ...(row().todo.isNote ? [] : [{ name: "Plan…", act: () => choose("plan") }]),
    { name: "Due…", act: () => choose("due") },
    { name: "List…", act: () => choose("list") },
  ];

  function items(): MenuItem[] {
    const { todo, why } = row();
    const { id, parent, isNote, handful } = todo;
    const moves = sheet?.moves;
    const picked = handful === today();
    return [
      ...(isNote || linger.struck(todo)
        ? []
        : [
            {
              name: picked ? "Out of the handful" : "Into today’s handful",
              act: () => actions.pick(todo, !picked),
            },
          ]),
      ...dates(),
      ...(arranges()
        ? [
            { name: "Put in below", act: () => moves?.adds(id, false), apart: true },
            ...(isNote ? [] : [{ name: "Put in a subtask", act: () => moves?.adds(id, true) }]),
            { name: "Make it a subtask of the row above", act: () => moves?.indent(id) },
            ...(parent ? [{ name: "Lift it out", act: () => moves?.lift(id) }] : []),
            { name: "Move up", act: () => moves?.step(id, -1) },
            { name: "Move down", act: () => moves?.step(id, 1) },
          ]
        : []),
      ...(why
        ? [
            {
              name: "Why does it stand here?",
              act: () => toasts.show({ text: `“${todo.title}” stands here: ${why}.` }),
              apart: true,
            },
          ]
        : []),
      { name: "Choose", act: () => selection.toggle(id), apart: true },
      ...(row().todo.deleted
        ? []
        : [{ name: "Duplicate it", act: () => actions.duplicate(row().todo) }]),
      bin(),
    ];
  }
  function openFew() {
    const hung = at();
    const few = [...dates(), { ...bin(), apart: true }];
    if (hung) menus.menu = { label: `For ${row().todo.title}`, items: few, at: hung };
  }
  return { items, openFew };
}
