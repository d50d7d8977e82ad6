import * as z from 'zod';

export const ARCHIVE_SCHEMA = 'gold-reed/archive@1';

const fileSchema = z.object({
  path: z.string(),
  bytes: z.number().int().min(0),
  /** Of its content, in hexadecimal. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});

/** What an archive says of itself: `manifest.json`, its last file. docs/archive.md describes the whole. */
export const manifestSchema = z.object({
  schema: z.literal(ARCHIVE_SCHEMA),
  /** ISO 8601. */
  createdAt: z.string(),
  /** Versions of the records in it. */
  versions: z.object({ take: z.number().int(), settings: z.number().int() }),
  takes: z.number().int().min(0),
  files: z.array(fileSchema),
});
export type Manifest = z.infer<typeof manifestSchema>;
export type ArchiveFile = z.infer<typeof fileSchema>;

export const MANIFEST = 'manifest.json';
/** Paths of the parts of an archive. */
export const MUSIC = 'music.json';
export const SETTINGS = 'settings.json';
export const PLANS = 'plans.json';
/** Where a take lies in an archive. */
export const takePath = (id: string) => `takes/${id}.json`;
/** Where the thread of a take lies. */
export const tracePath = (id: string) => `traces/${id}.json`;
/** Where the sound of a take lies. */
export const soundPath = (id: string) => `sound/${id}.wav`;

/** Ids of the takes in an archive. */
export const takeIdsIn = ({ files }: Manifest): string[] =>
  files.flatMap(({ path }) => /^takes\/([\w-]+)\.json$/.exec(path)?.[1] ?? []);
