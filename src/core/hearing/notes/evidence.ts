/** One thing that is seen of a moment, and what a unit of it weighs in log-odds. */
export interface Evidence<Seen> {
  readonly weight: number;
  readonly of: (seen: Seen) => number;
}

/**
 * Log-odds of something: what they are before anything is seen, and what each thing that is seen adds, as logistic regression has
 * fitted it. To look at one thing more is one row more.
 */
export const logOdds = <Seen>(prior: number, evidence: readonly Evidence<Seen>[], seen: Seen): number =>
  evidence.reduce((odds, { weight, of }) => odds + weight * of(seen), prior);
