import { useSettings, useStorageUse } from '@/store';
import { Notice } from '@/ui';

const BYTES_IN_MEGABYTE = 1_000_000;
/** Told when there is room for fewer minutes than this. */
const FEW_MINUTES = 5;
const MEGABYTES_A_MINUTE = 6;

/** Tells that the room for sound comes to its end, before it has. @param bytes of the take that may be kept next. */
export function RoomForSound({ bytes }: { bytes: number }) {
  const { settings } = useSettings();
  const { data: use } = useStorageUse();
  if (!use || !settings.keepAudio) return null;
  const left = settings.audioQuotaMegabytes - use.audioBytes / BYTES_IN_MEGABYTE;
  const minutes = Math.floor(left / MEGABYTES_A_MINUTE);
  if (bytes / BYTES_IN_MEGABYTE > left)
    return (
      <Notice text="There is no room left for the sound of this take. Its figures are kept all the same; Bench has the room for sound, and takes whose sound is no longer needed can be deleted from the log." />
    );
  return minutes < FEW_MINUTES ? (
    <Notice
      text={`Room for sound: ${Math.max(0, Math.round(left))} of ${settings.audioQuotaMegabytes} MB left, ${minutes < 1 ? 'less than a minute' : `about ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}`}. Bench gives it more.`}
    />
  ) : null;
}
