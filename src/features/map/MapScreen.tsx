import { Body, Screen } from '@/ui';

export function MapScreen() {
  return (
    <Screen caption="Map" title="Where your notes lie">
      <Body>
        Here your instrument will stand as one column, each note where you play it and each seam between the
        registers as the line that you are mending, drawn from the takes you keep.
      </Body>
    </Screen>
  );
}
