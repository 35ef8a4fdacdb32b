import { etagOf, Refused, send } from "./client";
import type { components } from "./schema";
import { rowFieldNames } from "@/words/clash";
import { fullMoment } from "@/words/dates";

type RowState = components["schemas"]["RowState"];
type Send<T> = Parameters<typeof send<T>>[0];

/** Another window wrote the same field meanwhile: what stands there now. */
export class Overtaken extends Error {
  constructor(
    readonly row: RowState,
    field: string,
  ) {
    const now = row[field as keyof RowState];
    const said = field === "due" && now ? fullMoment(String(now)) : now;
    const tells = typeof said === "string" && field !== "person"; // whom it names by an id
    const value = tells ? `: ${said === "" ? "none" : `“${said}”`}` : "";
    super(
      `Another window has changed the ${rowFieldNames[field] ?? field} meanwhile${value}. Yours was not kept.`,
    );
  }
}

/**
 * Changes a list, section, shelf, tag, person or view as it was seen. Where
 * another window changed other fields it goes again by itself; where it changed
 * one of these, it throws Overtaken. With no fields, as for taking the row out,
 * it goes again whatever changed.
 */
export async function asSeen<T>(
  row: { revision: number },
  fields: object,
  go: (header: { "If-Match": string }) => ReturnType<Send<T>>,
): Promise<T> {
  try {
    return await send<T>(() => go({ "If-Match": etagOf(row) }));
  } catch (e) {
    const now = e instanceof Refused && e.problem.status === 412 ? e.problem.currentRow : undefined;
    if (!now) throw e;
    const theirs = e instanceof Refused ? (e.problem.changed ?? []) : [];
    // A retry after a lost answer meets its own values.
    const same = Object.entries(fields).find(
      ([f, value]) =>
        theirs.includes(f) && JSON.stringify(now[f as keyof RowState]) !== JSON.stringify(value),
    )?.[0];
    if (same) throw new Overtaken(now, same);
    return asSeen(now, fields, go);
  }
}

/** What of some values differs from what was there: only that is written. */
export function altered<A extends object>(before: object, values: A): Partial<A> {
  const was = before as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(values).filter(
      ([key, value]) => JSON.stringify(was[key] ?? "") !== JSON.stringify(value),
    ),
  ) as Partial<A>;
}

/**
 * Carries out what a dialog asks for, on a row as it was seen. After Overtaken the
 * dialog stays, and saving again writes over what stands there now.
 */
export function saving(
  row: { revision: number },
  write: (row: { revision: number }, fields: Record<string, string>) => Promise<void>,
) {
  let seen = row;
  return async (answers: Record<string, string>) => {
    const fields = altered(row, answers) as Record<string, string>;
    if (!Object.keys(fields).length) return;
    try {
      await write(seen, fields);
    } catch (e) {
      if (!(e instanceof Overtaken)) throw e;
      seen = e.row;
      throw new Error(`${e.message} Save again to set yours.`, { cause: e });
    }
  };
}
