// Hands the samples of a microphone to the page, a few thousand at a time. It runs beside the sound and keeps nothing.
const AT_ONCE = 4096;

class Capture extends AudioWorkletProcessor {
  #samples = new Float32Array(AT_ONCE);
  #count = 0;

  process([input]) {
    const channel = input[0];
    if (!channel) return true;
    for (const sample of channel) {
      this.#samples[this.#count++] = sample;
      if (this.#count === AT_ONCE) {
        this.port.postMessage(this.#samples);
        this.#samples = new Float32Array(AT_ONCE);
        this.#count = 0;
      }
    }
    return true;
  }
}

registerProcessor('capture', Capture);
