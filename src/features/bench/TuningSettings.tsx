import { useState } from 'react';
import { PITCH_STANDARDS, temperaments } from '@/core/tuning';
import { readTuningFiles } from './importTuning';
import type { Settings } from '@/store';
import { Button, Choice, Notice, Soft } from '@/ui';
import type { SettingsProps } from './settingsProps';

const TONICS = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'] as const;

/** The pitch standard that is met most, the temperament, its tonic, and a tuning file of one's own. */
export function TuningSettings({ settings, change }: SettingsProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const bringIn = async () => {
    const read = await readTuningFiles();
    if (!read) return;
    if (!read.ok) {
      setProblem(read.problem);
      return;
    }
    setProblem(null);
    await change({
      temperament: 'own',
      ownTuning: { name: read.value.name, offsets: [...read.value.offsets] },
    });
  };
  const { temperament, ownTuning } = settings;
  const about = temperaments.find((each) => each.id === temperament)?.about;
  return (
    <>
      <Choice
        label="Often used"
        value={String(settings.a4)}
        onChange={(a4) => void change({ a4: Number(a4) })}
        options={PITCH_STANDARDS.map((each) => ({ value: String(each), label: String(each) }))}
      />
      <Choice<Settings['temperament']>
        label="Temperament"
        value={temperament}
        onChange={(next) => void change({ temperament: next })}
        options={[
          ...temperaments.map(({ id, name }) => ({ value: id, label: name })),
          ...(ownTuning ? [{ value: 'own' as const, label: ownTuning.name }] : []),
        ]}
      />
      {about ? <Soft>{about}</Soft> : null}
      {temperament === 'equal' || temperament === 'own' ? null : (
        <Choice
          label="Its tonic, sounding"
          value={String(settings.tonic)}
          onChange={(tonic) => void change({ tonic: Number(tonic) })}
          options={TONICS.map((label, i) => ({ value: String(i), label }))}
        />
      )}
      {problem ? <Notice problem text={problem} testID="tuning-problem" /> : null}
      <Button look="quiet" label="Bring in a tuning file (.scl, .kbm)" onPress={() => void bringIn()} />
    </>
  );
}
