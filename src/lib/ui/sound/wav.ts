/** A recording as a WAV file of sixteen bits: an open format that everything plays. */
const HEADER = 44;

export function wavOf(
  buffer: Pick<AudioBuffer, 'getChannelData' | 'sampleRate' | 'length'>,
): Uint8Array<ArrayBuffer> {
  const samples = buffer.getChannelData(0);
  const bytes = new Uint8Array(HEADER + 2 * buffer.length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, what: string): void =>
    [...what].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true); // plain samples
  view.setUint16(22, 1, true); // of one channel
  view.setUint32(24, buffer.sampleRate, true);
  view.setUint32(28, 2 * buffer.sampleRate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, 2 * buffer.length, true);
  // Louder than can be written is made quieter as a whole, so that nothing is cut off.
  const loudest = samples.reduce((most, v) => Math.max(most, Math.abs(v)), 1);
  for (let i = 0; i < samples.length; i++)
    view.setInt16(HEADER + 2 * i, Math.round((samples[i]! / loudest) * 32_767), true);
  return bytes;
}
