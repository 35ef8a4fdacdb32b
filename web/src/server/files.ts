import { onScopeDispose, ref, watch } from "vue";
import { useToasts } from "@/kit/toasts";
import { ask, client, Refused, send } from "./client";
import type { components } from "./schema";
import { useServer } from "./server";

export type ImportPreview = components["schemas"]["ImportPreview"];
export type CSVColumn = components["schemas"]["CSVColumn"];
export type ImportRow = components["schemas"]["ImportRow"];
export type ImportProgress = components["schemas"]["ImportProgress"];
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
  [...fileFormats.map((f) => f.ending), ".tsv", ".txt", ".zip"].some((ending) =>
    name.toLowerCase().endsWith(ending),
  );
/** Whether a file is everything of an installation, and no to-dos for this one. */
export const isEverything = (p: ImportPreview) => p.format === "everything";

/** The address of to-dos as a file. */
export function exportHref(format: FileFormat, what: Record<string, string> = {}): string {
  return `/api/export?${new URLSearchParams({ format, ...what }).toString()}`;
}

/** Has the browser save to-dos that were chosen one by one. */
export async function saveChosen(format: FileFormat, ids: string[]): Promise<void> {
  const { data, error } = await client.POST("/api/export", {
    body: { format, ids },
    parseAs: "blob",
  });
  if (!data)
    throw new Error((error as { detail?: string } | undefined)?.detail ?? "It is not saved.");
  download(`chosen${fileFormats.find((f) => f.name === format)!.ending}`, data as Blob);
}

function download(name: string, content: Blob) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}

/** Has the browser save a text. */
export const saveText = (name: string, text: string) =>
  download(name, new Blob([text], { type: "text/plain" }));

/** What a preview leaves out: rows of a table as they stand in it, or else where each stands and why. */
export function leftOut(p: ImportPreview): { text: string; ending: string } | undefined {
  const rows = p.rows.filter((r) => r.what === "refused");
  if (!rows.length || isEverything(p)) return undefined;
  if (p.rawHead)
    return {
      text: [p.rawHead, ...rows.flatMap((r) => r.raw ?? [])].join("\r\n") + "\r\n",
      ending: "",
    };
  const told = rows.map((r) => `Line ${r.line ?? "?"}: ${r.title}\r\n  ${r.reason ?? ""}\r\n`);
  return { text: told.join(""), ending: ".txt" };
}

const bytes = (file: File) => ({
  headers: { "Content-Type": "application/octet-stream" },
  body: file as unknown as string,
  bodySerializer: (body: unknown) => body as BodyInit,
});
/** How a file is read: where its to-dos go that name no list, and what its columns are. */
export interface Reading {
  list: string;
  /** Columns that were named by hand, by their heads. */
  columns: Record<string, string>;
  /** What looks like a to-do that is there is left out. */
  leaving: boolean;
  /** Sentences that are read in the place of others, by the numbers of their lines. */
  instead: Record<number, string>;
}
const query = (file: File, { list, columns, leaving, instead }: Reading) => ({
  name: file.name,
  ...(list && { list }),
  ...(Object.keys(instead).length && { instead: new URLSearchParams(instead).toString() }),
  ...(leaving && { likes: "leave" as const }),
  ...(Object.keys(columns).length && {
    columns: new URLSearchParams(
      Object.entries(columns).map(([head, is]) => [head.trim().toLowerCase(), is]),
    ).toString(),
  }),
});

/** What would become of a file; what it throws says why none can be brought in. */
export const lookAt = (file: File, reading: Reading, signal: AbortSignal): Promise<ImportPreview> =>
  ask(() =>
    client.POST("/api/import/look", {
      params: { query: query(file, reading) },
      ...bytes(file),
      signal,
    }),
  );

/** Brings files in. A retry under the same key brings nothing in twice. */
export function useBringIn() {
  const server = useServer();
  const toasts = useToasts();
  return async (file: File, reading: Reading, key: string) => {
    const done = await send(
      (header) =>
        client.POST("/api/import", {
          params: { query: query(file, reading), header },
          ...bytes(file),
        }),
      key,
    );
    server.refresh(done.change.revision);
    toasts.show({ text: done.change.says, undo: done.change.revision });
  };
}

/** How far the file has got that this window brings in, as often as it is worth telling. */
export function useImportProgress(busy: () => boolean) {
  const is = ref<ImportProgress>();
  let nth = 0;
  async function follow(mine: number) {
    while (mine === nth) {
      await new Promise((done) => setTimeout(done, 250));
      if (mine !== nth) return;
      const { data } = await client
        .GET("/api/import/progress", {})
        .catch(() => ({ data: undefined }));
      if (mine === nth) is.value = data;
    }
  }
  watch(
    busy,
    (now) => {
      is.value = undefined;
      nth++;
      if (now) void follow(nth);
    },
    { immediate: true },
  );
  onScopeDispose(() => nth++);
  return is;
}

/** Stops what this window brings in under a key; what it throws says that it is too late. */
export async function stopImport(key: string): Promise<void> {
  const { error } = await client.DELETE("/api/import/progress", {
    params: { header: { "Idempotency-Key": key } },
  });
  if (error) throw new Refused(error);
}
