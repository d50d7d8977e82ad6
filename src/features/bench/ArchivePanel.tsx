import { useRef, useState } from 'react';
import { View } from 'react-native';
import { plural } from '@/core/verdict';
import {
  exportLog,
  exportTable,
  lookInto,
  takeBack,
  type Imported,
  type LookedInto,
  type Settings,
  type Work,
} from '@/store';
import { askForFile, Body, Button, Choice, dayText, download, Heading, Notice, Soft } from '@/ui';
import type { SettingsProps } from './settingsProps';

/** What is going on in the panel. */
type Going =
  | { readonly is: 'nothing'; readonly said?: string; readonly problem?: boolean }
  | { readonly is: 'working'; readonly what: string; readonly done: number; readonly of: number }
  | { readonly is: 'asked'; readonly fileName: string; readonly archive: LookedInto }
  | { readonly is: 'imported'; readonly imported: Imported };

const day = () => new Date().toISOString().slice(0, 10);

/** The whole log as one file, out and in; tables for other programs; a reminder. */
export function ArchivePanel({ settings, change }: SettingsProps) {
  const [going, setGoing] = useState<Going>({ is: 'nothing' });
  const stopping = useRef<AbortController | null>(null);

  /** Something long, with its progress; what goes wrong in it is said here. */
  const work = async (what: string, doing: (work: Work) => Promise<Going>) => {
    const stop = (stopping.current = new AbortController());
    const onProgress = (done: number, of: number) => setGoing({ is: 'working', what, done, of });
    onProgress(0, 1);
    const next = await doing({ onProgress, signal: stop.signal }).catch((error: unknown): Going => ({
      is: 'nothing',
      problem: !stop.signal.aborted,
      said: stop.signal.aborted
        ? 'Stopped. Nothing was written.'
        : `That did not work: ${error instanceof Error ? error.message : String(error)}`,
    }));
    setGoing(next);
  };

  const exportAll = (withSound: boolean) =>
    work('Exporting', async (job) => {
      const file = await exportLog(withSound, job);
      download(`gold-reed-${day()}.zip`, file, 'application/zip');
      return { is: 'nothing', said: `Exported: gold-reed-${day()}.zip, ${(file.size / 1e6).toFixed(1)} MB.` };
    });

  const table = (of: 'takes' | 'notes') =>
    work('Writing the table', async () => {
      download(`gold-reed-${of}-${day()}.csv`, await exportTable(of), 'text/csv');
      return { is: 'nothing', said: `Written: gold-reed-${of}-${day()}.csv.` };
    });

  const choose = async () => {
    const file = await askForFile('.zip');
    if (!file) return;
    await work(`Looking into ${file.name}`, async () => {
      const archive = await lookInto(file);
      return archive.ok
        ? { is: 'asked', fileName: file.name, archive: archive.value }
        : { is: 'nothing', problem: true, said: `${file.name}: ${archive.problem}.` };
    });
  };

  const bringIn = (archive: LookedInto, mode: 'merge' | 'replace') =>
    work('Bringing it in', async (job) => {
      const done = await archive.bringIn(mode, job);
      await archive.close();
      return done.ok
        ? { is: 'imported', imported: done.value }
        : { is: 'nothing', problem: true, said: `${done.problem}.` };
    });

  return (
    <View style={{ gap: 8 }} testID="archive">
      <Heading>Keep it safe</Heading>
      <Body>
        Everything is on this device only. An export is one file with takes, curves, sound, music, instruments
        and settings, for another device or a shelf.
      </Body>
      {going.is === 'working' ? (
        <Notice
          testID="working"
          text={`${going.what}: ${going.of > 0 ? Math.round((100 * going.done) / going.of) : 0} %`}
          action={{ label: 'Stop', onPress: () => stopping.current?.abort() }}
        />
      ) : null}
      {going.is === 'nothing' && going.said !== undefined ? (
        <Notice testID="archive-said" problem={going.problem ?? false} text={going.said} />
      ) : null}
      {going.is === 'asked' ? (
        <Asked
          {...going}
          onBring={(mode) => void bringIn(going.archive, mode)}
          onLeave={() => {
            void going.archive.close();
            setGoing({ is: 'nothing' });
          }}
        />
      ) : null}
      {going.is === 'imported' ? (
        <Notice
          testID="imported"
          text={saidOf(going.imported)}
          action={{
            label: 'Undo',
            onPress: () =>
              void work('Putting back what was', async () => {
                await takeBack(going.imported);
                return { is: 'nothing', said: 'As it was before. What came with the file lies in the bin.' };
              }),
          }}
        />
      ) : null}
      <Button label="Export everything" testID="export" onPress={() => void exportAll(true)} />
      <Button look="quiet" label="Export without sound" onPress={() => void exportAll(false)} />
      <Button look="quiet" label="Takes as a table (CSV)" onPress={() => void table('takes')} />
      <Button look="quiet" label="Notes as a table (CSV)" onPress={() => void table('notes')} />
      <Button label="Bring an export in" testID="import-archive" onPress={() => void choose()} />
      <Choice<Settings['exportEvery']>
        label="Remind me to export"
        value={settings.exportEvery}
        onChange={(exportEvery) => void change({ exportEvery })}
        options={[
          { value: 'never', label: 'never' },
          { value: 'sunday', label: 'every Sunday' },
          { value: 'month', label: 'once a month' },
        ]}
      />
      <Soft>
        {settings.lastExportAt === null
          ? 'Not exported yet.'
          : `Last exported: ${dayText(new Date(settings.lastExportAt))}.`}
      </Soft>
    </View>
  );
}

interface AskedProps {
  readonly fileName: string;
  readonly archive: LookedInto;
  readonly onBring: (mode: 'merge' | 'replace') => void;
  readonly onLeave: () => void;
}

/** What is in the file, before anything is done with it. */
function Asked({ fileName, archive: { preview }, onBring, onLeave }: AskedProps) {
  const { takes, fresh, withSound, pieces, unreadPieces, createdAt, hasSettings } = preview;
  return (
    <View style={{ gap: 4 }} testID="asked">
      <Body>
        {`${fileName}, of ${dayText(new Date(createdAt))}: ${plural(takes, 'take')} (${withSound} with sound), ${plural(pieces, 'piece')} of music${hasSettings ? ', settings' : ''}. ${fresh === 0 ? 'All of its takes are here already.' : `${plural(fresh, 'take')} of them ${fresh === 1 ? 'is' : 'are'} not here yet.`}${unreadPieces === 0 ? '' : ` ${unreadWords(unreadPieces)}.`}`}
      </Body>
      <Button look="strong" label="Add what is not here" testID="merge" onPress={() => onBring('merge')} />
      <Button
        label="Replace what is here"
        testID="replace"
        spoken="Replace what is here. The takes of now go to the bin."
        onPress={() => onBring('replace')}
      />
      <Button look="quiet" label="Leave it" onPress={onLeave} />
    </View>
  );
}

const unreadWords = (count: number) =>
  `${plural(count, 'piece')} of music cannot be read here, and ${count === 1 ? 'stays' : 'stay'} in the file`;

function saidOf({ added, replaced, pieces, unread, unreadPieces }: Imported): string {
  const parts = [
    `${plural(added.length, 'take')} brought in`,
    ...(pieces.length > 0 ? [`${plural(pieces.length, 'piece')} of music`] : []),
    ...(replaced.length > 0 ? [`${plural(replaced.length, 'take')} of before in the bin`] : []),
    ...(unread > 0
      ? [`${plural(unread, 'take')} could not be read, and ${unread === 1 ? 'was' : 'were'} left out`]
      : []),
    ...(unreadPieces > 0 ? [unreadWords(unreadPieces)] : []),
  ];
  return `${parts.join('; ')}.`;
}
