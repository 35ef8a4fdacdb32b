import type { Line } from "@/server/client";

const ends = /\r\n|\r|\n/;

/** The number of the line that a caret stands in, from 1. */
export const lineAt = (text: string, caret: number) => text.slice(0, caret).split(ends).length;

/** The text with another sentence in a line; its indentation and the mark before it stay. */
export function withSentence(text: string, line: Line, sentence: string): string {
  const lines = text.split(ends);
  const was = lines[line.number - 1] ?? "";
  if (!was.endsWith(line.sentence)) return text;
  lines[line.number - 1] = was.slice(0, was.length - line.sentence.length) + sentence;
  return lines.join("\n");
}

/** Where a line ends in a text. */
export function ending(text: string, number: number): number {
  return text.split("\n").slice(0, number).join("\n").length;
}
