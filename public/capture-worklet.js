/**
 * Forwards what it hears to whoever holds the other end of the port it is given, and does nothing else:
 * the mathematics is in the analysis worker, and no sample passes through the page.
 */
const CHUNK = 512;

class Capture extends AudioWorkletProcessor {
  constructor() {
    super();
    this.out = null;
    this.chunk = new Float32Array(CHUNK);
    this.filled = 0;
    this.port.onmessage = ({ data }) => {
      if (data.out) this.out = data.out;
      if (data.close) {
        this.flush(currentFrame);
        this.out = null;
      }
    };
  }

  flush(endFrame) {
    if (!this.out || this.filled === 0) return;
    const samples = this.chunk.slice(0, this.filled);
    this.out.postMessage({ frame: endFrame - this.filled, rate: sampleRate, samples }, [samples.buffer]);
    this.filled = 0;
  }

  process([channels]) {
    if (!this.out) return true;
    const length = channels.length > 0 ? channels[0].length : 128;
    for (let i = 0; i < length; i++) {
      let sum = 0;
      for (const channel of channels) sum += channel[i];
      this.chunk[this.filled++] = channels.length > 0 ? sum / channels.length : 0;
      if (this.filled === CHUNK) this.flush(currentFrame + i + 1);
    }
    return true;
  }
}

registerProcessor('gold-reed-capture', Capture);
