// Writes how far points of the earth lie apart along the ellipsoid of WGS 84, as
// geographiclib-geodesic reckons it: latitude and longitude of two points in degrees, metres.
// Among them are steps of a few metres, lines across the 180th meridian and round a pole, and
// points that lie almost opposite.
// Run from web: node reference/geodesic.mjs
import { writeFileSync } from "node:fs";
import geodesic from "geographiclib-geodesic";

let seed = 42; // a small generator of one's own: the file is the same each time
const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
const between = (low, high) => low + random() * (high - low);
const lines = [];
function add(lat1, lon1, lat2, lon2) {
  const [a, b, c, d] = [lat1, lon1, lat2, lon2].map((x) => Math.round(x * 1e6) / 1e6);
  const { s12 } = geodesic.Geodesic.WGS84.Inverse(a, b, c, d);
  lines.push([a, b, c, d, s12.toFixed(3)].join("\t"));
}
/** A point so many metres away in a direction. */
function step(lat, lon, metres) {
  const there = geodesic.Geodesic.WGS84.Direct(lat, lon, between(0, 360), metres);
  add(lat, lon, there.lat2, there.lon2);
}
for (let i = 0; i < 150; i++)
  add(between(-90, 90), between(-180, 180), between(-90, 90), between(-180, 180));
for (let i = 0; i < 150; i++) step(between(-85, 85), between(-180, 180), 10 ** between(1.3, 4.7));
for (let i = 0; i < 60; i++) step(between(-80, 80), 180 - between(0, 0.01), 10 ** between(1.3, 6));
for (let i = 0; i < 60; i++)
  step((i % 2 ? 1 : -1) * between(89.9, 90), between(-180, 180), 10 ** between(1.3, 5));
for (let i = 0; i < 30; i++) {
  const [lat, lon] = [between(-80, 80), between(-180, 0)];
  add(lat, lon, -lat + between(-1, 1), lon + 180 + between(-1, 0));
}
const head =
  "# what geographiclib-geodesic says of distances; made by web/reference/geodesic.mjs\n";
const file = new URL("../../internal/core/geo/testdata/geodesic.txt", import.meta.url);
writeFileSync(file, head + lines.join("\n") + "\n");
