// Reads the phrases of internal/core/capture/testdata/phrases.txt with
// chrono-node, in British English (day before month), and writes what it finds
// beside them: now, phrase, and a date, with time where it is sure of one.
// Run from web: node reference/chrono.mjs
import { readFileSync, writeFileSync } from "node:fs";
import * as chrono from "chrono-node";

const folder = new URL("../../internal/core/capture/testdata/", import.meta.url);
const two = (n) => String(n).padStart(2, "0");
const lines = readFileSync(new URL("phrases.txt", folder), "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"))
  .map((line) => {
    const [now, phrase] = line.split("\t");
    const [found] = chrono.en.GB.parse(
      phrase,
      { instant: new Date(now + ":00Z"), timezone: 0 },
      { forwardDate: true },
    );
    if (!found) return [now, phrase, "-"].join("\t");
    const at = found.start;
    let text = `${at.get("year")}-${two(at.get("month"))}-${two(at.get("day"))}`;
    const partOfDay = /morning|afternoon|evening|noon|midnight|tonight/.test(phrase);
    if (at.isCertain("hour") || partOfDay)
      text += `T${two(at.get("hour"))}:${two(at.get("minute") ?? 0)}`;
    return [now, phrase, text].join("\t");
  });
const head = "# what chrono-node reads of phrases.txt; made by web/reference/chrono.mjs\n";
writeFileSync(new URL("chrono.txt", folder), head + lines.join("\n") + "\n");
