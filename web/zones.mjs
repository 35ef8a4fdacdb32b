// Writes the zones of Windows and their IANA names (CLDR, supplemental data, windowsZones) to the
// table that package ics embeds: a line each, the name, a tab, and the zone of the territory 001.
import { readFileSync, writeFileSync } from "node:fs";

const from = new URL("node_modules/cldr-core/supplemental/windowsZones.json", import.meta.url);
const { mapTimezones } = JSON.parse(readFileSync(from, "utf8")).supplemental.windowsZones;
const lines = mapTimezones
  .map(({ mapZone }) => mapZone)
  .filter((z) => z._territory === "001")
  .map((z) => `${z._other}\t${z._type}`)
  .sort();
writeFileSync(
  new URL("../internal/formats/ics/windows_zones.txt", import.meta.url),
  lines.join("\n") + "\n",
);
