import { type Decibels, type Hertz, Random, type Seconds } from '@/core/base';
import { BandPass } from './filters';

/** Speed of sound at 20 °C, m/s. */
const SPEED = 343;
/** Sabine's constant, s/m. */
const SABINE = 0.161;
/** Until then single echoes are told apart; after it they are so many that noise stands for them. */
const EARLY: Seconds = 0.03;
const ORDER = 4;
/** How long each octave of the tail rings, against the room's own figure: soft things swallow the high ones. */
const BANDS: readonly { readonly hz: Hertz; readonly share: number }[] = [
  { hz: 125, share: 1.25 },
  { hz: 250, share: 1.15 },
  { hz: 500, share: 1.05 },
  { hz: 1000, share: 1 },
  { hz: 2000, share: 0.9 },
  { hz: 4000, share: 0.75 },
  { hz: 8000, share: 0.55 },
];
/** Natural logarithm of the fall of an amplitude by 60 dB. */
const SIXTY_DB = 6.91;

type Point = readonly [number, number, number];

export interface Reflections {
  /** Seconds for 60 dB, in the middle of the band. */
  readonly decaySeconds: Seconds;
  /** Energy of the direct sound over that of all echoes. */
  readonly directDb: Decibels;
}

/**
 * What a microphone in a shoebox-shaped room receives of one impulse: the direct sound (1, at once), early echoes by image
 * sources (Allen & Berkley, J. Acoust. Soc. Am. 65, 1979) and a diffuse tail, noise that decays by band.
 * @param place another room of the same kind, and other places of player and microphone in it.
 */
export function impulseResponse(
  { decaySeconds, directDb }: Reflections,
  sampleRate: Hertz,
  place: number,
): Float32Array {
  const random = new Random(0x7007 + place);
  const size: Point = [random.between(3.6, 5.6), random.between(3, 4.4), random.between(2.4, 2.8)];
  const microphone = pointIn(size, random);
  const player = nearTo(microphone, size, random);
  const response = new Float32Array(Math.ceil(1.3 * decaySeconds * sampleRate));
  earlyEchoes(response, { size, player, microphone }, decaySeconds, sampleRate);
  const loudness = Math.sqrt(energyBetween(response, 0.4 * EARLY, EARLY, sampleRate));
  diffuseTail(response, loudness, decaySeconds, sampleRate, random);
  const echoes = response.reduce((sum, x) => sum + x * x, 0);
  const scale = Math.sqrt(10 ** (-directDb / 10) / echoes);
  for (let i = 0; i < response.length; i++) response[i]! *= scale;
  response[0] = 1;
  return response;
}

const pointIn = (size: Point, random: Random): Point => [
  random.between(0.8, size[0] - 0.8),
  random.between(0.8, size[1] - 0.8),
  random.between(0.9, 1.3),
];

/** A player about an arm's length and a half away, at the height of the mouth. */
function nearTo([x, y]: Point, size: Point, random: Random): Point {
  const angle = random.between(0, 2 * Math.PI);
  const away = random.between(0.7, 1.2);
  const within = (value: number, most: number) => Math.max(0.4, Math.min(most - 0.4, value));
  return [
    within(x + away * Math.cos(angle), size[0]),
    within(y + away * Math.sin(angle), size[1]),
    random.between(1.2, 1.6),
  ];
}

const distance = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

function earlyEchoes(
  response: Float32Array,
  { size, player, microphone }: { size: Point; player: Point; microphone: Point },
  decay: Seconds,
  sampleRate: Hertz,
): void {
  const [x, y, z] = size;
  const absorbed = Math.min(0.9, 1 - Math.exp((-SABINE * x * y * z) / (2 * (x * y + y * z + x * z)) / decay));
  const kept = Math.sqrt(1 - absorbed);
  const straight = distance(player, microphone);
  // Image n of a point between two walls: an even number of reflections shifts it, an odd one mirrors it too.
  const image = (at: number, length: number, n: number) =>
    n % 2 === 0 ? at + n * length : n * length + length - at;
  for (let i = -ORDER; i <= ORDER; i++)
    for (let j = -ORDER; j <= ORDER; j++)
      for (let k = -ORDER; k <= ORDER; k++) {
        const order = Math.abs(i) + Math.abs(j) + Math.abs(k);
        if (order === 0 || order > ORDER) continue;
        const way = distance(
          [image(player[0], x, i), image(player[1], y, j), image(player[2], z, k)],
          microphone,
        );
        const late = (way - straight) / SPEED;
        if (late >= EARLY || late <= 0) continue;
        response[Math.max(1, Math.round(late * sampleRate))]! += (kept ** order * straight) / way;
      }
}

function energyBetween(response: Float32Array, from: Seconds, to: Seconds, sampleRate: Hertz): number {
  let sum = 0;
  for (let i = Math.round(from * sampleRate); i < to * sampleRate; i++) sum += response[i]! ** 2;
  return sum / ((to - from) * sampleRate);
}

/** @param loudness RMS of the echoes where the tail takes over. */
function diffuseTail(
  response: Float32Array,
  loudness: number,
  decay: Seconds,
  sampleRate: Hertz,
  random: Random,
): void {
  const white = Float32Array.from(response, () => random.normal());
  const tail = new Float32Array(response.length);
  for (const { hz, share } of BANDS) {
    if (hz > 0.4 * sampleRate) continue;
    const band = new BandPass(hz, 1.1, sampleRate);
    const rate = SIXTY_DB / (decay * share * sampleRate);
    for (let i = 0; i < tail.length; i++) tail[i]! += band.next(white[i]!) * Math.exp(-rate * i);
  }
  const start = Math.round(0.5 * EARLY * sampleRate);
  const full = Math.round(EARLY * sampleRate);
  const own = Math.sqrt(energyBetween(tail, EARLY, 2 * EARLY, sampleRate)) || 1;
  const scale = (loudness * Math.exp((-SIXTY_DB * 0.5 * EARLY) / decay)) / own;
  for (let i = start; i < response.length; i++)
    response[i]! += scale * tail[i]! * Math.min(1, (i - start) / (full - start));
}
