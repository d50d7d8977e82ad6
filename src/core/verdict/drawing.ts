import type { Cents, Decibels, Seconds } from '@/core/tuning';

interface Point {
  readonly seconds: Seconds;
  readonly value: number;
}

/** A note's level beside the line that was asked for. */
export interface LineOfNote {
  readonly name: string;
  readonly shape: 'grow' | 'fade' | 'swell';
  readonly played: readonly Point[];
  /** The nearest line of the asked shape. */
  readonly asked: readonly Point[];
  readonly cents: readonly Point[];
}

/** One leg of a sweep: level against pitch and ring, softest first. */
export interface SweepLeg {
  readonly way: 'up' | 'down';
  readonly points: readonly { readonly levelDb: Decibels; readonly cents: Cents; readonly ring: number }[];
}

/**
 * What is to be drawn of a take besides its strip: each family has the drawing that fits it. The figures are all here; the
 * interface only draws.
 */
export type Drawing =
  | {
      readonly kind: 'climb';
      readonly rows: readonly {
        readonly fingered: string;
        readonly modes: readonly {
          readonly mode: number;
          readonly name: string;
          readonly reached: boolean;
          /** Against the multiple of the fundamental as it sounded. */
          readonly cents: Cents | null;
          /** Against the ordinary fingering of the same pitch. */
          readonly ordinary: Cents | null;
        }[];
      }[];
    }
  | {
      readonly kind: 'sweep';
      readonly name: string;
      readonly legs: readonly SweepLeg[];
      readonly ringDb: Decibels | null;
      readonly tuneDb: Decibels | null;
    }
  | {
      readonly kind: 'bend';
      readonly legs: readonly {
        readonly label: string;
        readonly points: readonly Point[];
        readonly reach: Cents;
      }[];
    }
  | { readonly kind: 'lines'; readonly notes: readonly LineOfNote[] }
  | {
      readonly kind: 'holds';
      readonly holds: readonly {
        readonly name: string;
        readonly pure: Seconds | null;
        readonly length: Seconds;
        readonly asked: Seconds;
      }[];
    }
  | {
      readonly kind: 'ladder';
      /** Attacks in the order played, each step by its label. */
      readonly steps: readonly { readonly label: string; readonly offsets: readonly Seconds[] }[];
    }
  | {
      readonly kind: 'leanings';
      readonly notes: readonly { readonly name: string; readonly cents: Cents }[];
    }
  | {
      readonly kind: 'intervals';
      readonly notes: readonly {
        readonly name: string;
        readonly interval: string;
        readonly cents: Cents;
        /** Beats a second of the nearest coinciding partials; null where nothing sounds along. */
        readonly beatHz: number | null;
      }[];
    }
  | {
      readonly kind: 'ways';
      readonly ways: readonly {
        readonly name: string;
        readonly rise: Seconds | null;
        readonly levelDb: Decibels | null;
        readonly brightness: number | null;
        readonly cents: Cents | null;
        readonly cleanSlurs: string | null;
      }[];
    }
  | {
      readonly kind: 'window';
      readonly notes: readonly {
        readonly name: string;
        readonly softDb: Decibels;
        readonly loudDb: Decibels;
        readonly softCents: Cents | null;
        readonly loudCents: Cents | null;
      }[];
    }
  | {
      readonly kind: 'sameness';
      readonly reference: string;
      readonly notes: readonly {
        readonly name: string;
        readonly distance: number;
        readonly parts: readonly { readonly name: string; readonly steps: number }[];
      }[];
    }
  | {
      readonly kind: 'anchor';
      readonly name: string;
      readonly returns: readonly {
        readonly from: string;
        readonly cents: Cents | null;
        readonly levelDb: Decibels | null;
        readonly distance: number | null;
      }[];
    }
  | {
      readonly kind: 'compared';
      readonly names: readonly [string, string];
      readonly rows: readonly {
        readonly label: string;
        readonly unit: string;
        readonly difference: number;
        readonly low: number;
        readonly high: number;
        readonly sure: boolean;
      }[];
    }
  | {
      readonly kind: 'scan';
      readonly notes: readonly {
        readonly written: number;
        readonly name: string;
        readonly dynamic: string;
        readonly cents: Cents;
      }[];
    };
