import { useToasts } from "@/kit/toasts";
import { ask, client, send } from "./client";
import type { components } from "./schema";
import { useServer } from "./server";

export type ImportPreview = components["schemas"]["ImportPreview"];
export type ImportRow = components["schemas"]["ImportRow"];
export type FileFormat = components["schemas"]["FileFormatName"];

/** The formats, as people call them. */
export const fileFormats: { name: FileFormat; says: string; ending: string }[] = [
  { name: "ics", says: "iCalendar", ending: ".ics" },
  { name: "jscal", says: "JSCalendar", ending: ".json" },
  { name: "csv", says: "CSV", ending: ".csv" },
  { name: "markdown", says: "Markdown", ending: ".md" },
];
/** Whether a file is of an ending that brings to-dos in. */
export const bringsIn = (name: string) =>
  [...fileFormats.map((f) => f.ending), ".zip"].some((ending) =>
    name.toLowerCase().endsWith(ending),
  );
/** Whether a file is everything of an installation, and no to-dos for this one. */
export const isEverything = (p: ImportPreview) => p.format === "everything";

/** The address of to-dos as a file. */
export function exportHref(format: FileFormat, what: Record<string, string> = {}): string {
  return `/api/export?${new URLSearchParams({ format, ...what }).toString()}`;
}

const bytes = (file: File) => ({
  headers: { "Content-Type": "application/octet-stream" },
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as BodyInit,
});
const query = (file: File, list: string) => ({ name: file.name, ...(list ? { list } : {}) });

/** What would become of a file; what it throws says why none can be brought in. */
export const lookAt = (file: File, list: string): Promise<ImportPreview> =>
  ask(() =>
    client.POST("/api/import/look", { params: { query: query(file, list) }, ...bytes(file) }),
  );

/** Brings files in. */
export function useBringIn() {
  const server = useServer();
  const toasts = useToasts();
  return async (file: File, list: string) => {
    const done = await send((header) =>
      client.POST("/api/import", { params: { query: query(file, list), header }, ...bytes(file) }),
    );
    server.refresh(done.change.revision);
    toasts.show({ text: done.change.says, undo: done.change.revision });
  };
}
