/** The 44 bytes before the samples of a WAV file: 16 bits, integer, little-endian. */
export function wavHeader(frames: number, sampleRate: number, channels = 1): Uint8Array {
  const bytes = frames * channels * 2;
  const header = new DataView(new ArrayBuffer(44));
  const text = (at: number, letters: string) =>
    [...letters].forEach((letter, i) => header.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  header.setUint32(4, 36 + bytes, true);
  text(8, 'WAVEfmt ');
  header.setUint32(16, 16, true);
  header.setUint16(20, 1, true);
  header.setUint16(22, channels, true);
  header.setUint32(24, sampleRate, true);
  header.setUint32(28, sampleRate * channels * 2, true);
  header.setUint16(32, channels * 2, true);
  header.setUint16(34, 16, true);
  text(36, 'data');
  header.setUint32(40, bytes, true);
  return new Uint8Array(header.buffer);
}

/** Samples from -1 to 1 as 16-bit integers; what is louder is held at the edge. */
export function pcm16(samples: Float32Array): Int16Array {
  return Int16Array.from(samples, (sample) => Math.round(Math.max(-1, Math.min(1, sample)) * 32_767));
}

/** A whole mono WAV file. */
export function wavFile(samples: Float32Array, sampleRate: number): Uint8Array {
  return wavOfChannels([samples], sampleRate);
}

/** A whole WAV file of one channel or two, left before right, as long as each other. */
export function wavOfChannels(channels: readonly Float32Array[], sampleRate: number): Uint8Array {
  const frames = channels[0]!.length;
  const file = new Uint8Array(44 + frames * channels.length * 2);
  file.set(wavHeader(frames, sampleRate, channels.length));
  const view = new DataView(file.buffer);
  channels.forEach((samples, channel) =>
    pcm16(samples).forEach((sample, i) => view.setInt16(44 + 2 * (i * channels.length + channel), sample, true)),
  );
  return file;
}
