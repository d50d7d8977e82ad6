import { fromInt16, rms } from '@/core/base';
import { useCallback, useState } from 'react';
import type { Elsewhere, Take } from '@/core/take';
import { loadAudio } from '@/store';
import { usePlayback } from '@/features/sound';

export type PlaceSound = 'silent' | 'this' | 'both';

const BEFORE_SECONDS = 0.35;
const AFTER_SECONDS = 0.25;
const PAUSE_SECONDS = 0.45;
const LONGEST_SECONDS = 6;

/** Hearing one place of a take over and over, alone or in turn with the same note of another take. */
export function usePlace(take: Take, other: Elsewhere | null) {
  const [wanted, setWanted] = useState<'this' | 'both'>('this');
  const { playing, play: hear, stop } = usePlayback();
  const play = useCallback(
    (next: 'this' | 'both', startSeconds: number, endSeconds: number) => {
      setWanted(next);
      return hear(async () => {
        const { sampleRate } = take.conditions;
        const pieces = [pieceOf(await loadAudio(take.id), sampleRate, startSeconds, endSeconds)];
        if (next === 'both' && other) {
          const { sampleRate: otherRate } = other.take.conditions;
          const audio = await loadAudio(other.take.id);
          const piece = pieceOf(audio, otherRate, other.startSeconds, other.endSeconds);
          pieces.push(resampled(piece, otherRate, sampleRate));
        }
        const known = pieces.filter((piece) => piece.length > 0);
        return known.length > 0 ? { samples: inTurn(equallyLoud(known), sampleRate), sampleRate } : null;
      }, true);
    },
    [take, other, hear],
  );
  const state: PlaceSound = playing ? wanted : 'silent';
  return { state, play, stop };
}

function pieceOf(audio: Int16Array | null, rate: number, start: number, end: number): Float32Array {
  if (!audio) return new Float32Array(0);
  const from = Math.max(0, Math.floor((start - BEFORE_SECONDS) * rate));
  const to = Math.min(
    audio.length,
    Math.ceil((Math.min(end, start + LONGEST_SECONDS) + AFTER_SECONDS) * rate),
  );
  const piece = fromInt16(audio.subarray(from, to));
  const fade = Math.round(0.02 * rate);
  for (let i = 0; i < Math.min(fade, piece.length); i++) {
    piece[i]! *= i / fade;
    piece[piece.length - 1 - i]! *= i / fade;
  }
  return piece;
}

/** Takes of two devices may differ in rate; for the ear a straight line between samples is enough. */
function resampled(piece: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return piece;
  return Float32Array.from({ length: Math.floor((piece.length * to) / from) }, (_, i) => {
    const at = (i * from) / to;
    const left = Math.floor(at);
    return piece[left]! + ((piece[left + 1] ?? piece[left]!) - piece[left]!) * (at - left);
  });
}

/** Two takes were seldom recorded equally loud, and the louder of two always sounds the better: the louder are turned down. */
function equallyLoud(pieces: readonly Float32Array[]): Float32Array[] {
  const levels = pieces.map(rms);
  const quietest = Math.min(...levels.filter((level) => level > 0));
  return pieces.map((piece, i) =>
    levels[i]! > 0 ? piece.map((each) => (each * quietest) / levels[i]!) : piece,
  );
}

function inTurn(pieces: readonly Float32Array[], rate: number): Float32Array {
  const pause = Math.round(PAUSE_SECONDS * rate);
  const out = new Float32Array(pieces.reduce((sum, piece) => sum + piece.length + pause, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length + pause;
  }
  return out;
}
