import type { Settings } from '@/store';

/** What every part of the bench is given. */
export interface SettingsProps {
  readonly settings: Settings;
  readonly change: (part: Partial<Settings>) => Promise<void>;
}
