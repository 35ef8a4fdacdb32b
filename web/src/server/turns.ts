import { type QueryClient, useQueryClient } from "@tanstack/vue-query";
import { ask, client, type Todo } from "./client";

/** The last thing that was asked of a to-do and is not answered yet. */
const turns = new Map<string, Promise<void>>();
/** To-dos of which a change was taken back: how they stand is not what the last answer said. */
const takenBack = new Set<string>();

/** An undo or redo on its way, which is of all. */
let apart: Promise<unknown> = Promise.resolve();

async function standing(queries: QueryClient, todo: Todo): Promise<Todo> {
  if (takenBack.delete(todo.id)) {
    const anew = await ask(() =>
      client.GET("/api/todos/{id}", { params: { path: { id: todo.id } } }),
    ).catch(() => undefined);
    if (anew) return anew;
  }
  const known = queries.getQueryData<Todo>(["todo", todo.id]);
  return known && known.revision > todo.revision ? known : todo;
}

/** Texts on their way that were left for another act, with the revision that each makes. */
const texts = new Map<string, Promise<number | undefined>>();

/** Notes that a text of a to-do is being saved, so that what is set next comes after it. */
export function saving(id: string, changed: Promise<Todo>) {
  const revision = changed.then(
    (c) => c.revision,
    () => undefined,
  );
  texts.set(id, revision);
  void revision.then(() => texts.get(id) === revision && texts.delete(id));
}

/** A to-do with the revision that a text on its way has made. */
export async function afterTexts<T extends Pick<Todo, "id" | "revision">>(todo: T): Promise<T> {
  const revision = (await texts.get(todo.id)) ?? 0;
  return revision > todo.revision ? { ...todo, revision } : todo;
}

/** Keys come faster than answers: what depends on how a to-do stands waits for what was asked before. */
export function useTurns() {
  const queries = useQueryClient();

  /** Does something with a to-do as it stands after all that was asked of it before. */
  function inTurn(todo: Todo, work: (fresh: Todo) => Promise<unknown>) {
    const before = Promise.all([turns.get(todo.id), apart]);
    const mine = before.then(async () => {
      await work(await standing(queries, todo)).catch(() => undefined); // it has told its trouble
    });
    turns.set(todo.id, mine);
    void mine.finally(() => turns.get(todo.id) === mine && turns.delete(todo.id));
  }
  /** Does something once all that was asked before is answered; what is asked after waits for it. */
  function byItself<T>(work: () => Promise<T>): Promise<T> {
    const mine = Promise.all([...turns.values(), apart]).then(work);
    apart = mine.catch(() => undefined);
    return mine;
  }
  const wasTakenBack = (ids: string[]) => ids.forEach((id) => takenBack.add(id));
  return { inTurn, byItself, wasTakenBack };
}
