const rate = 8_000;

/** A quiet tone of so many seconds as a WAV file (RIFF, 8-bit mono PCM): what the stand-in has recorded. */
export function toneOf(seconds: number): Buffer {
  const samples = Buffer.from(
    Uint8Array.from(
      { length: rate * seconds },
      (_, i) => 128 + Math.round(20 * Math.sin((2 * Math.PI * 440 * i) / rate)),
    ),
  );
  const head = Buffer.alloc(44);
  head.write("RIFF", 0, "latin1");
  head.writeUInt32LE(36 + samples.length, 4);
  head.write("WAVEfmt ", 8, "latin1");
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write("data", 36, "latin1");
  head.writeUInt32LE(samples.length, 40);
  return Buffer.concat([head, samples]);
}
