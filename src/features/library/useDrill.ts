import { useRouter } from 'expo-router';
import { useSettings } from '@/store';

/** Sets an exercise for an instrument and goes to its page; what else was set of it stays. */
export function useDrill(): (
  instrumentId: string,
  family: string,
  values: Readonly<Record<string, unknown>>,
) => void {
  const router = useRouter();
  const { settings, change } = useSettings();
  return (instrumentId, family, values) => {
    const key = `${family}/${instrumentId}`;
    const exercises = { ...settings.exercises, [key]: { ...settings.exercises[key], ...values } };
    void change({ instrumentId, exercises });
    router.push(`/exercise/${family}`);
  };
}
