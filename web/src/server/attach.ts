import { ask, type Attachment, client, send, type Todo } from "./client";
import { useActions } from "./actions";

const most = 25 * 1024 * 1024;

function checkSize(file: File) {
  if (file.size > most) throw new Error(`“${file.name}” has more than 25 MB, which is the most.`);
}

/** Keeps the bytes of a file for a to-do that is about to be put in. */
export async function keep(file: File): Promise<Attachment> {
  checkSize(file);
  return ask(() =>
    client.POST("/api/files", {
      params: { query: { name: file.name } },
      headers: { "Content-Type": "application/octet-stream" },
      body: file as unknown as string,
      bodySerializer: (body) => body,
    }),
  );
}

/** Files that are put on a to-do, one after the other, and taken away. */
export function useAttach() {
  const actions = useActions();

  async function attach(todo: Pick<Todo, "id">, files: Iterable<File>) {
    for (const file of files) {
      const done = await actions.attempt(async () => {
        checkSize(file);
        actions.took(
          await send((header) =>
            client.POST("/api/todos/{id}/attachments", {
              params: { path: { id: todo.id }, query: { name: file.name }, header },
              headers: { "Content-Type": "application/octet-stream" },
              body: file as unknown as string,
              bodySerializer: (body) => body,
            }),
          ),
        );
        return true;
      });
      if (!done) return;
    }
  }
  const detach = (todo: Pick<Todo, "id">, hash: string) =>
    actions.attempt(async () =>
      actions.took(
        await send(() =>
          client.DELETE("/api/todos/{id}/attachments/{hash}", {
            params: { path: { id: todo.id, hash } },
          }),
        ),
      ),
    );
  return { attach, detach };
}

/** "212 kB" */
export function sizeWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1000)} kB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}
