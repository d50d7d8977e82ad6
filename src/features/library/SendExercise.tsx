import { useState } from 'react';
import { linkPart, SHARED_VERSION } from '@/core/formats/shared';
import { blockOf } from '@/core/plan';
import { newId, useSettings } from '@/store';
import { Body, Button } from '@/ui';
import type { Exercise } from './useExercise';

/** This exercise, as it is set, as a link for a pupil. */
export function SendExercise({
  family,
  values,
  instrument,
}: Pick<Exercise, 'family' | 'values' | 'instrument'>) {
  const { settings } = useSettings();
  const [link, setLink] = useState<string | null>(null);
  const [copied, setCopied] = useState(false);
  // A recording that is the model of a colour is the player's own, and too long for a link.
  const block = blockOf(
    family.id,
    { ...values, ...('model' in values && { model: null }) },
    instrument,
    settings.level,
  );
  if (!block.ok) return null;
  const send = async () => {
    const part = await linkPart({
      goldReed: SHARED_VERSION,
      kind: 'routine',
      routine: {
        id: newId(new Date()),
        name: family.title,
        instrumentId: instrument.id,
        blocks: [block.value],
      },
    });
    const address = `${window.location.origin}/open#${part}`;
    setLink(address);
    await navigator.clipboard.writeText(address).then(
      () => setCopied(true),
      () => setCopied(false),
    );
  };
  return (
    <>
      <Button label={copied ? 'Link copied' : 'A link'} onPress={() => void send()} testID="send-exercise" />
      {link && !copied ? <Body lines={2}>{link}</Body> : null}
    </>
  );
}
