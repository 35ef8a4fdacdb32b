import { useQueryClient } from "@tanstack/vue-query";
import {
  Away,
  type ChangedTodo,
  client,
  etagOf,
  type Overview,
  type RepeatChoice,
  send,
  type Todo,
  type TodoPatch,
} from "./client";
import { Refused } from "./client";
import { fieldNames, fieldWords } from "@/words/clash";
import { personById, writeTo } from "@/words/fields";
import { useLinger } from "./linger";
import { afterTexts, useTurns } from "./turns";
import { useServer } from "./server";
import { type Also, useToasts } from "@/kit/toasts";
import { whyNot } from "@/words/keys";

const short = (title: string) => (title.length > 28 ? `${title.slice(0, 27)}…` : title);

type Command =
  | "complete"
  | "reopen"
  | "cancel"
  | "keep"
  | "restore"
  | "skip"
  | "pause"
  | "resume"
  | "end-repeat";

/** Changes that the latest undo found it could not turn back, and the message that says so. */
const blocked: { message?: number; changes: number[] } = { changes: [] };

/** Everything a person can do to a to-do, and what is said afterwards. */
export function useActions() {
  const queries = useQueryClient();
  const server = useServer();
  const toasts = useToasts();
  const linger = useLinger();
  const { inTurn, byItself, wasTakenBack } = useTurns();

  function trouble(e: unknown) {
    if (e instanceof Away) {
      toasts.show({
        text: "The server is away. Nothing was changed; try again when it is back.",
        trouble: true,
        sort: "away",
      });
    } else {
      toasts.show({
        text: e instanceof Error ? e.message : "Something went wrong.",
        trouble: true,
      });
    }
  }

  function took(changed: ChangedTodo, quiet = false, more = "", also?: Also, sort?: string) {
    const { change, project, ...todo } = changed;
    if (project?.finished && todo.status === "completed")
      also ??= {
        name: `Finish “${short(project.title)}”`,
        act: () => void run(project.id, "complete"),
      };
    queries.setQueryData(["todo", todo.id], todo);
    if (change.revision) server.refresh(change.revision, [todo.id]);
    return !quiet && change.revision
      ? toasts.show({ text: change.says + more, undo: change.revision, also, sort })
      : undefined;
  }

  /** Says that one is done; a person with an address whom it has to do with is at hand. */
  function finished(done: ChangedTodo) {
    const person = personById(queries.getQueryData<Overview>(["overview"]), done.person?.id);
    const write = person && writeTo(person, done.title);
    const whole = done.project?.finished && done.status === "completed";
    took(done, false, write ? ` ${write.says}` : "", whole ? undefined : write?.also);
  }

  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work();
    } catch (e) {
      trouble(e);
      return undefined;
    }
  }

  const command = (id: string, name: Command) =>
    send((header) => client.POST(`/api/todos/{id}/${name}`, { params: { path: { id }, header } }));

  /** Does something to one; true once it is kept. */
  const run = (id: string, name: Command) =>
    attempt(async () => {
      const done = await command(id, name);
      if (name === "complete") finished(done);
      else took(done);
      return true;
    });

  /** Ticks, or takes the tick back. The row is struck before the server answers. */
  async function tick(todo: Todo) {
    if (linger.struck(todo)) {
      const tickOf = linger.tickOf(todo.id);
      linger.set(todo.id, "open");
      try {
        // A repeat has moved on by now: taking its tick back is undoing it.
        if (tickOf) await turnBack(tickOf);
        else took(await command(todo.id, "reopen"));
      } catch (e) {
        linger.drop(todo.id);
        trouble(e);
      }
      return;
    }
    linger.set(todo.id, "completed");
    try {
      const done = await command(todo.id, "complete");
      if (todo.repeat && done.change.revision)
        linger.set(todo.id, "completed", done.change.revision);
      finished(done);
    } catch (e) {
      linger.drop(todo.id);
      trouble(e);
    }
  }

  /** Plans one; true once it is kept. */
  const plan = (todo: Pick<Todo, "id">, horizon: string | null) =>
    attempt(async () => {
      const planned = await send((header) =>
        client.POST("/api/todos/{id}/plan", {
          params: { path: { id: todo.id }, header },
          body: { plan: horizon },
        }),
      );
      took(planned);
      if (!planned.change.revision) toasts.show({ text: whyNot.sameAlready });
      return true;
    });

  const move = (todo: Pick<Todo, "id">, list: string | null, section: string | null = null) =>
    attempt(async () =>
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/move", {
            params: { path: { id: todo.id }, header },
            body: { list, section },
          }),
        ),
      ),
    );

  /** Picks it for today's handful, or takes it out. */
  const pick = (todo: Pick<Todo, "id">, isIn: boolean) =>
    attempt(async () => {
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/handful", {
            params: { path: { id: todo.id }, header },
            body: { in: isIn },
          }),
        ),
      );
      return true;
    });

  const tag = (todo: Pick<Todo, "id">, add: string[], remove: string[]) =>
    attempt(async () =>
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/tags", {
            params: { path: { id: todo.id }, header },
            body: { add, remove },
          }),
        ),
      ),
    );

  /** Sends an edit; one that another window's change does not touch goes again by itself. */
  async function patch(todo: Pick<Todo, "id" | "revision">, body: TodoPatch): Promise<ChangedTodo> {
    const go = (revision: number) =>
      send(() =>
        client.PATCH("/api/todos/{id}", {
          params: { path: { id: todo.id }, header: { "If-Match": etagOf({ revision }) } },
          headers: { "Content-Type": "application/merge-patch+json" },
          body,
        }),
      );
    try {
      return await go(todo.revision);
    } catch (e) {
      if (!(e instanceof Refused) || e.problem.status !== 412 || !e.problem.current) throw e;
      const theirs = e.problem.changed ?? [];
      if (Object.keys(body).some((field) => theirs.includes(field))) throw e;
      return go(e.problem.current.revision);
    }
  }

  /**
   * Edits from a row: with a word and an offer to undo. A date of a repeat is
   * that of this occurrence; all coming ones can be moved with it.
   */
  const edit = (todo: Pick<Todo, "id" | "revision" | "repeat">, body: TodoPatch, quiet = false) =>
    attempt(async () => {
      let changed: ChangedTodo;
      try {
        changed = await patch(await afterTexts(todo), body);
      } catch (e) {
        if (clashed(e, body)) return;
        throw e;
      }
      const to = body.due?.slice(0, 10);
      const also =
        todo.repeat && to && changed.due && to !== todo.repeat.current
          ? { name: "All coming ones", act: () => void moveRepeat(todo, to) }
          : undefined;
      took(changed, quiet, "", also);
      return true;
    });

  /** Another window wrote the same field: says what, and offers to overwrite it. */
  function clashed(e: unknown, body: TodoPatch): boolean {
    const theirs = e instanceof Refused && e.problem.status === 412 ? e.problem.current : undefined;
    const field = Object.keys(body)[0] as keyof TodoPatch | undefined;
    if (!theirs || !field) return false;
    toasts.show({
      text: `Another window has set the ${fieldNames[field]} meanwhile: ${fieldWords(field, theirs)}. Yours was not kept.`,
      trouble: true,
      also: { name: "Set mine instead", act: () => void edit(theirs, body) },
    });
    server.refresh(undefined, [theirs.id]);
    return true;
  }

  const moveRepeat = (todo: Pick<Todo, "id">, to: string) =>
    attempt(async () =>
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/repeat/move", {
            params: { path: { id: todo.id }, header },
            body: { to },
          }),
        ),
      ),
    );

  const repeat = (todo: Pick<Todo, "id">, body: RepeatChoice) =>
    attempt(async () =>
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/repeat", {
            params: { path: { id: todo.id }, header },
            body,
          }),
        ),
      ),
    );

  const remind = (todo: Pick<Todo, "id">, add: string[], remove: string[]) =>
    attempt(async () =>
      took(
        await send((header) =>
          client.POST("/api/todos/{id}/reminders", {
            params: { path: { id: todo.id }, header },
            body: { add, remove },
          }),
        ),
      ),
    );

  /** Makes a copy of one, behind it, with all that is open under it. */
  const duplicate = (todo: Pick<Todo, "id">) =>
    attempt(async () => {
      const made = await send((header) =>
        client.POST("/api/todos/{id}/duplicate", { params: { path: { id: todo.id }, header } }),
      );
      server.refresh(made.change.revision);
      toasts.show({ text: made.change.says, undo: made.change.revision });
    });

  const remove = (todo: Pick<Todo, "id" | "revision">) =>
    attempt(async () => {
      took(
        await send(() =>
          client.DELETE("/api/todos/{id}", {
            params: { path: { id: todo.id }, header: { "If-Match": "*" } },
          }),
        ),
      );
      return true;
    });

  async function turnBack(change?: number, passing: number[] = []) {
    const body = change ? { change } : passing.length ? { passing } : {};
    const done = await send((header) => client.POST("/api/undo", { params: { header }, body }));
    linger.forget(done.todos);
    wasTakenBack(done.todos);
    server.undone = [...done.todos];
    if (change) toasts.settle(change);
    server.refresh(done.change.revision);
    toasts.show({ text: done.change.says });
  }
  /**
   * Undoes a change, or the latest. What was asked before is undone by it, and not what came before that. Where the
   * latest cannot be undone the message says why, and while that stands the next undo passes over it.
   */
  const undo = (change?: number) =>
    attempt(() =>
      byItself(async () => {
        const standing = toasts.toasts.some((t) => t.id === blocked.message);
        const passing = change || !standing ? [] : blocked.changes;
        try {
          await turnBack(change, passing);
        } catch (e) {
          const by = !change && e instanceof Refused && e.problem.blocked;
          if (!by) throw e;
          blocked.changes = [...passing, by];
          blocked.message = toasts.show({
            text: `${e.message} Undo again passes over it.`,
            trouble: true,
            sort: "blocked",
          });
        }
      }),
    );

  const redo = () =>
    attempt(() =>
      byItself(async () => {
        const done = await send((header) => client.POST("/api/redo", { params: { header } }));
        linger.forget(done.todos);
        wasTakenBack(done.todos);
        server.refresh(done.change.revision);
        toasts.show({ text: `Done again. ${done.change.says}` });
      }),
    );

  return {
    inTurn,
    tick,
    run,
    plan,
    move,
    pick,
    tag,
    patch,
    edit,
    repeat,
    remind,
    duplicate,
    remove,
    undo,
    redo,
    took,
    trouble,
    attempt,
  };
}
