import { ask, client, type Many, type Move, type Postponing, send, type Turned } from "./client";
import { manyQuestion } from "@/words/many";
import { useActions } from "./actions";
import { useAsk } from "@/kit/ask";
import { useLinger } from "./linger";
import { useSelection } from "@/kit/selection";
import { useServer } from "./server";
import { useToasts } from "@/kit/toasts";

/** More than so many are not changed unasked. */
const asksFrom = 20;

/** What can be done to many to-dos at once, each one change with one undo. */
export function useMany() {
  const actions = useActions();
  const linger = useLinger();
  const selection = useSelection();
  const server = useServer();
  const toasts = useToasts();
  const asking = useAsk();

  function took(done: Turned) {
    linger.forget(done.todos);
    if (done.change.revision) server.refresh(done.change.revision, done.todos);
    toasts.show({ text: done.change.says, undo: done.change.revision || undefined });
  }

  const during = <T>(n: number, work: () => Promise<T>) =>
    toasts.during(`Changing ${n.toLocaleString("en-GB")} to-dos…`, work);

  /** Says what is about to be changed, where it is much or not expected, and waits. */
  async function agreed(ids: string[], what: Omit<Many, "ids">): Promise<boolean> {
    const reach = await ask(() => client.POST("/api/many/reach", { body: { ids } }));
    if (ids.length <= asksFrom && !reach.closed && !reach.archived) return true;
    return asking.agree(manyQuestion(ids.length, what, reach));
  }

  const change = (ids: string[], what: Omit<Many, "ids">) =>
    actions.attempt(async () => {
      if (!(await agreed(ids, what))) return false;
      took(
        await during(ids.length, () =>
          send((header) =>
            client.POST("/api/many", { params: { header }, body: { ids, ...what } }),
          ),
        ),
      );
      selection.clear();
      return true;
    });

  const postpone = (body: Postponing) =>
    actions.attempt(async () => {
      took(
        await during(body.ids.length, () =>
          send((header) => client.POST("/api/postpone", { params: { header }, body })),
        ),
      );
      selection.clear();
      return true;
    });

  /** Moves one to-do, or all that are chosen where it is one of them. */
  const move = (id: string, to: Move) => {
    const ids = selection.ids.has(id) ? [...selection.ids] : [id];
    return ids.length > 1
      ? change(ids, { do: "move", place: to })
      : actions.attempt(async () =>
          actions.took(
            await send((header) =>
              client.POST("/api/todos/{id}/move", {
                params: { path: { id }, header },
                body: to,
              }),
            ),
            false,
            "",
            undefined,
            "move",
          ),
        );
  };

  /** Plans one to-do, or all that are chosen where it is one of them. */
  const plan = (id: string, horizon: string | null) =>
    selection.ids.has(id) && selection.ids.size > 1
      ? change([...selection.ids], { do: "plan", plan: horizon })
      : actions.plan({ id }, horizon);

  return { change, postpone, move, plan };
}
