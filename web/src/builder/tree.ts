import type { FilterNode } from "@/server/client";
import { type Asking, fieldOf } from "@/words/questions";

/** A line of the builder: a test, or a group with lines of its own. */
export type Line = TestLine | GroupLine;

export interface TestLine {
  id: number;
  kind: "test";
  field: string;
  op: string;
  not: boolean;
  text: string;
  values: string[];
  date: string;
  to: string;
  days: number;
  from: string;
  until: string;
  minutes: number;
}

export interface GroupLine {
  id: number;
  kind: "group";
  of: "all" | "any";
  not: boolean;
  lines: Line[];
}

let ids = 0;

export const newTest = (field = "tag"): TestLine => ({
  id: ++ids,
  kind: "test",
  field,
  op: fieldOf(field).asks[0]!.op,
  not: false,
  text: "",
  values: [],
  date: "P0D",
  to: "P7D",
  days: 7,
  from: "09:00",
  until: "12:00",
  minutes: 30,
});

export const newGroup = (of: GroupLine["of"], ...lines: Line[]): GroupLine => ({
  id: ++ids,
  kind: "group",
  of,
  not: false,
  lines,
});

/** The question that a test's words are. */
export const askingOf = (t: TestLine): Asking =>
  fieldOf(t.field).asks.find((a) => a.op === t.op && Boolean(a.not) === t.not) ?? {
    op: t.op,
    not: t.not,
    words: `${t.not ? "not " : ""}${t.op}`,
    wants: fieldOf(t.field).asks.find((a) => a.op === t.op)?.wants ?? "nothing",
  };

/** Whether nothing is missing that the test wants. */
export function filled(t: TestLine): boolean {
  switch (askingOf(t).wants) {
    case "text":
      return t.text.trim() !== "";
    case "ids":
    case "words":
      return t.values.length > 0;
    case "date":
      return t.date !== "";
    case "between":
      return t.date !== "" && t.to !== "";
    case "times":
      return t.from !== "" && t.until !== "";
    case "days":
      return Number.isInteger(t.days) && t.days >= 0;
    case "minutes":
      return Number.isInteger(t.minutes) && t.minutes >= 1;
  }
  return true;
}

/** Reads a filter into lines; the outermost is always a group. */
export function read(node: FilterNode): GroupLine {
  const line = readNode(node, false);
  return line.kind === "group" && !line.not ? line : newGroup("all", line);
}

function readNode(node: FilterNode, not: boolean): Line {
  if (node.not) return readNode(node.not, !not);
  for (const of of ["all", "any"] as const) {
    const nodes = node[of];
    if (nodes) return { ...newGroup(of, ...nodes.map((n) => readNode(n, false))), not };
  }
  const test = newTest(node.field);
  return {
    ...test,
    op: node.op ?? test.op,
    not,
    text: node.text ?? "",
    values: node.values ?? [],
    date: node.date ?? test.date,
    to: node.to ?? test.to,
    days: node.days ?? test.days,
    from: node.from ?? test.from,
    until: node.until ?? test.until,
    minutes: node.minutes ?? test.minutes,
  };
}

/** The filter that lines make, and which line stands at which path of it. */
export interface Written {
  filter: FilterNode;
  at: Map<string, Line>;
}

/** Writes lines as a filter; those that are not filled in yet are left out. */
export function write(root: GroupLine): Written {
  const at = new Map<string, Line>();
  return { filter: writeLine(root, "", at), at };
}

function writeLine(line: Line, path: string, at: Map<string, Line>): FilterNode {
  if (line.not) return { not: writePlain(line, `${path}/not`, at) };
  return writePlain(line, path, at);
}

function writePlain(line: Line, path: string, at: Map<string, Line>): FilterNode {
  at.set(path, line);
  if (line.kind === "group") {
    const lines = line.lines.filter((l) => l.kind === "group" || filled(l));
    return { [line.of]: lines.map((l, i) => writeLine(l, `${path}/${line.of}/${i}`, at)) };
  }
  const test: FilterNode = { field: line.field, op: line.op };
  switch (askingOf(line).wants) {
    case "text":
      return { ...test, text: line.text };
    case "ids":
    case "words":
      return { ...test, values: line.values };
    case "date":
      return { ...test, date: line.date };
    case "between":
      return { ...test, date: line.date, to: line.to };
    case "times":
      return { ...test, from: line.from, until: line.until };
    case "days":
      return { ...test, days: line.days };
    case "minutes":
      return { ...test, minutes: line.minutes };
  }
  return test;
}

/** Takes a line out of wherever it stands. */
export function takeOut(root: GroupLine, line: Line): boolean {
  const i = root.lines.indexOf(line);
  if (i >= 0) {
    root.lines.splice(i, 1);
    return true;
  }
  return root.lines.some((l) => l.kind === "group" && takeOut(l, line));
}
