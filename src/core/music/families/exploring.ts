/** Exploring has its own verdict and never changes what is remembered of a note. */
export const EXPLORING = {
  feeds: { map: false, seams: false, trends: false },
  events: [] as never[],
  exploring: true,
};
