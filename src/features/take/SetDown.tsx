import { useRouter } from 'expo-router';
import type { Take } from '@/core/take';
import { Button } from '@/ui';

/** A phrase can be long; what is longer is no phrase, and would be no help as music of one's own. */
const MOST_NOTES = 300;

/** Free playing can become music of one's own. */
export function SetDown({ take: { id, score } }: { take: Take }) {
  const router = useRouter();
  if (!score.free || score.notes.length < 2 || score.notes.length > MOST_NOTES) return null;
  return (
    <Button
      label="Set it down as music"
      testID="set-down"
      onPress={() => router.push(`/music/phrase?take=${id}`)}
    />
  );
}
