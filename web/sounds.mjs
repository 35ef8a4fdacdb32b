/**
 * Makes the sounds of rings, web/public/sounds/*.wav: run by hand with `node sounds.mjs` in
 * web/ when one is to be changed. Each is a sum of fading sines, mono, 16 bits at 22,050 Hz
 * (RIFF WAVE, format PCM).
 */
import { writeFileSync } from "node:fs";

const rate = 22_050;

/** A struck thing: partials with their share and how fast each fades, in 1/s. */
const struck = (at, partials, loud = 1) => ({ at, partials, loud });
const enamel = (at, pitch, loud) =>
  struck(
    at,
    [
      [pitch, 1, 16],
      [pitch * 2.32, 0.45, 24],
      [pitch * 4.25, 0.22, 38],
      [pitch * 6.63, 0.1, 60],
    ],
    loud,
  );

const sounds = {
  tap: { seconds: 0.5, strokes: [enamel(0, 880, 0.8)] },
  "two-taps": { seconds: 0.75, strokes: [enamel(0, 784, 0.7), enamel(0.2, 988, 0.7)] },
  drip: {
    seconds: 0.5,
    // A drop's pitch rises as its bubble closes.
    slide: { from: 520, to: 1250, within: 0.09, fade: 16, loud: 0.7 },
    strokes: [],
  },
  "low-bell": {
    seconds: 1.6,
    strokes: [
      struck(
        0,
        [
          [262, 1, 2.6],
          [524, 0.5, 3.4],
          [629, 0.3, 4.2],
          [786, 0.25, 5],
          [1048, 0.15, 7],
        ],
        0.6,
      ),
    ],
  },
  kettle: {
    seconds: 1.1,
    // The whistle grows, wavers and stops.
    whistle: { pitch: 1480, waver: 9, width: 14, loud: 0.3 },
    strokes: [],
  },
};

function render({ seconds, strokes, slide, whistle }) {
  const samples = new Float64Array(Math.round(seconds * rate));
  let phase = 0;
  for (let i = 0; i < samples.length; i++) {
    const t = i / rate;
    for (const { at, partials, loud } of strokes) {
      const since = t - at;
      if (since < 0) continue;
      const rise = Math.min(1, since / 0.002); // no click at the start
      for (const [pitch, share, fade] of partials)
        samples[i] +=
          loud *
          0.5 *
          share *
          rise *
          Math.exp(-fade * since) *
          Math.sin(2 * Math.PI * pitch * since);
    }
    if (slide) {
      const done = Math.min(1, t / slide.within);
      phase += (2 * Math.PI * (slide.from + (slide.to - slide.from) * done * done)) / rate;
      samples[i] +=
        slide.loud * Math.min(1, t / 0.004) * Math.exp(-slide.fade * t) * Math.sin(phase);
    }
    if (whistle) {
      phase +=
        (2 *
          Math.PI *
          (whistle.pitch + whistle.width * Math.sin(2 * Math.PI * whistle.waver * t))) /
        rate;
      const shape = Math.sin(Math.PI * Math.min(1, t / seconds)) ** 1.5;
      samples[i] += whistle.loud * shape * (Math.sin(phase) + 0.3 * Math.sin(2 * phase));
    }
    samples[i] *= Math.min(1, (samples.length - i) / (0.02 * rate)); // nor at the end
  }
  return samples;
}

function wave(samples) {
  const file = Buffer.alloc(44 + 2 * samples.length);
  file.write("RIFF", 0);
  file.writeUInt32LE(36 + 2 * samples.length, 4);
  file.write("WAVEfmt ", 8);
  file.writeUInt32LE(16, 16);
  file.writeUInt16LE(1, 20); // PCM
  file.writeUInt16LE(1, 22); // mono
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(2 * rate, 28);
  file.writeUInt16LE(2, 32);
  file.writeUInt16LE(16, 34);
  file.write("data", 36);
  file.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((s, i) =>
    file.writeInt16LE(Math.round(Math.max(-1, Math.min(1, s)) * 32_000), 44 + 2 * i),
  );
  return file;
}

for (const [name, sound] of Object.entries(sounds)) {
  const file = wave(render(sound));
  writeFileSync(new URL(`public/sounds/${name}.wav`, import.meta.url), file);
  console.log(`${name}: ${file.length} bytes`);
}
