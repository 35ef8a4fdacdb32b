import { client, type Many, type Move, type Postponing, send, type Turned } from "@/api/client";
import { useActions } from "./actions";
import { useLinger } from "./linger";
import { useSelection } from "./selection";
import { useServer } from "./server";
import { useToasts } from "./toasts";

/** What can be done to many to-dos at once, each one change with one undo. */
export function useMany() {
  const actions = useActions();
  const linger = useLinger();
  const selection = useSelection();
  const server = useServer();
  const toasts = useToasts();

  function took(done: Turned) {
    linger.forget(done.todos);
    if (done.change.revision) server.refresh(done.change.revision, done.todos);
    toasts.show({ text: done.change.says, undo: done.change.revision || undefined });
  }

  const during = <T>(n: number, work: () => Promise<T>) =>
    toasts.during(`Changing ${n.toLocaleString("en-GB")} to-dos…`, work);

  const change = (ids: string[], what: Omit<Many, "ids">) =>
    actions.attempt(async () => {
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
  const move = (id: string, place: Move) => {
    const ids = selection.ids.has(id) ? [...selection.ids] : [id];
    return ids.length > 1
      ? change(ids, { do: "move", place })
      : actions.attempt(async () =>
          actions.took(
            await send((header) =>
              client.POST("/api/todos/{id}/move", {
                params: { path: { id }, header },
                body: place,
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
