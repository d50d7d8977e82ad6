import { usePathname, useRouter } from 'expo-router';
import { Body, Button, Screen } from '@/ui';

/** An address that leads nowhere. */
export function NotFoundScreen() {
  const router = useRouter();
  const path = usePathname();
  return (
    <Screen title="There is nothing here">
      <Body>{`No page has the address ${path}. Your log is not touched by it.`}</Body>
      <Button look="strong" label="To Today" onPress={() => router.replace('/')} />
      <Button label="To the exercises" onPress={() => router.replace('/practise')} />
    </Screen>
  );
}
