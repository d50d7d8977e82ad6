import { toInt16 } from '@/core/base';
import type { BrowserContext } from 'playwright-core';

export const MICROPHONE_RATE = 48_000;
const ASKED_FOR = 'soundOfTheMicrophone';

/**
 * Lets the page's microphone hear these samples over and over from when it is opened: each of them once, in order. Chromium's
 * own stand-in device loses and repeats some when the machine is busy, and keeps to real time. It still opens: whether it may be,
 * and what it says of itself, is the browser's.
 */
export async function hearInstead(context: BrowserContext, samples: Float32Array): Promise<void> {
  const sound = Buffer.from(toInt16(samples).buffer).toString('base64');
  await context.exposeFunction(ASKED_FOR, () => sound);
  await context.addInitScript(listenToIt, { askedFor: ASKED_FOR, rate: MICROPHONE_RATE });
}

/** Runs in the page, before anything of its own. */
function listenToIt({ askedFor, rate }: { askedFor: string; rate: number }): void {
  const { mediaDevices } = navigator;
  const open = mediaDevices.getUserMedia.bind(mediaDevices);
  let heard = new Int16Array(0);
  mediaDevices.getUserMedia = async (constraints) => {
    const ask = (window as unknown as Record<string, () => Promise<string>>)[askedFor]!;
    if (heard.length === 0)
      heard = new Int16Array(Uint8Array.from(atob(await ask()), (byte) => byte.charCodeAt(0)).buffer);
    return open(constraints);
  };
  AudioContext.prototype.createMediaStreamSource = function () {
    const buffer = this.createBuffer(1, heard.length, rate);
    buffer.copyToChannel(
      Float32Array.from(heard, (sample) => sample / 32_768),
      0,
    );
    const node = this.createBufferSource();
    node.buffer = buffer;
    node.loop = true;
    node.start();
    return node as AudioNode as MediaStreamAudioSourceNode;
  };
}
