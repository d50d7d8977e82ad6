import { act, createElement, useState, type ComponentType } from 'react';
import { SCHOOLS } from '@/core/verdict/coach';
import type { Outcome } from '@/core/base';
import { defaultSettings, type Settings } from '@/store';
import { mount, type Mounted } from '@/ui/mount.testing';
import { DeviceSync } from './DeviceSync';
import { JudgingSettings } from './JudgingSettings';
import { SoundSettings } from './SoundSettings';
import { TuningSettings } from './TuningSettings';

const mockSync = { answer: null as { device: string; seconds: number | null } | Error | null };
jest.mock('@/audio', () => {
  class SourceProblem extends Error {}
  return {
    SourceProblem,
    measureRoundTrip: () =>
      mockSync.answer instanceof Error
        ? Promise.reject(new SourceProblem(mockSync.answer.message))
        : Promise.resolve(mockSync.answer),
  };
});
const mockTuning = { read: null as Outcome<{ name: string; offsets: (number | null)[] }> | null };
jest.mock('./importTuning', () => ({ readTuningFiles: () => Promise.resolve(mockTuning.read) }));
const mockPlaces: string[] = [];
jest.mock('expo-router', () => ({ useRouter: () => ({ push: (path: string) => mockPlaces.push(path) }) }));

interface Props {
  readonly settings: Settings;
  readonly change: (part: Partial<Settings>) => Promise<void>;
}
let page: Mounted;
let settings: Settings;
/** A part of the bench over settings that change as they do in the app. */
function show(part: ComponentType<Props>, from: Partial<Settings> = {}): void {
  function Bench() {
    const [now, setNow] = useState<Settings>({ ...defaultSettings, ...from });
    settings = now;
    return createElement(part, {
      settings: now,
      change: (next) => {
        setNow((before) => ({ ...before, ...next }));
        return Promise.resolve();
      },
    });
  }
  page = mount(createElement(Bench));
}
const choose = (name: string) => page.tap(page.find('radio', name));
const press = (name: string) =>
  act(async () => {
    page.find('button', name).click();
    await Promise.resolve();
  });

afterEach(() => {
  page.leave();
  mockPlaces.length = 0;
});

describe('the sound of the stand', () => {
  it('sets metronome and drone piece by piece, the rest stays', () => {
    show(SoundSettings);
    choose('seen only');
    choose('3');
    choose('like the others');
    expect(settings.metronome).toEqual({ mode: 'sight', subdivision: 3, accents: false });
    choose('struck string');
    page.tap(page.find('button', 'Its volume: less'));
    expect(settings.drone).toEqual({ sound: 'string', volume: 0.3 });
  });

  it('says what each way to hear it means for the figures', () => {
    show(SoundSettings);
    expect(page.words()).toMatch(/taken out of the recording; what they cover is told as not known/);
    choose('headphones');
    expect(settings.headphones).toBe(true);
    expect(page.words()).toMatch(/nothing is taken out\. Keep the volume low/);
  });

  it('keeps the way from loudspeaker to microphone for each device', async () => {
    show(DeviceSync, { roundTrips: { 'Old headset': { seconds: 0.18, measuredAt: null } } });
    mockSync.answer = { device: 'Stand microphone', seconds: 0.0432 };
    await press('Measure it: eight clicks');
    expect(settings.roundTrips).toEqual({
      'Old headset': { seconds: 0.18, measuredAt: null },
      'Stand microphone': { seconds: 0.0432, measuredAt: expect.stringMatching(/^20\d\d-/) as string },
    });
    expect(page.byId('sync-result').textContent).toMatch(/Stand microphone: 43 ms, taken off every attack/);
    expect(page.words()).toMatch(/Old headset: 180 ms; Stand microphone: 43 ms/);
  });

  it.each([
    [{ device: 'Stand microphone', seconds: null }, /clicks were not heard\. Turn the loudspeaker up/],
    [new Error('No microphone was found.'), /No microphone was found/],
  ])('that could not be measured is told, and nothing is believed', async (answer, words) => {
    show(DeviceSync);
    mockSync.answer = answer;
    await press('Measure it: eight clicks');
    expect(page.byId('sync-result').textContent).toMatch(words);
    expect(settings.roundTrips).toEqual({});
    expect(page.words()).toMatch(/Not measured yet/);
  });
});

describe('the tuning', () => {
  it('asks for a tonic only where the temperament has one', () => {
    show(TuningSettings);
    expect(page.has('radiogroup', 'Its tonic, sounding')).toBe(false);
    choose('442');
    choose('Just');
    choose('E♭');
    expect(settings).toMatchObject({ a4: 442, temperament: 'just', tonic: 3 });
  });

  it('takes a file of one’s own, or says what is wrong with it and keeps what there was', async () => {
    show(TuningSettings);
    mockTuning.read = { ok: false, problem: 'bells.scl, line 4: “x” is no ratio' };
    await press('Bring in a tuning file (.scl, .kbm)');
    expect(page.byId('tuning-problem').textContent).toMatch(/line 4/);
    expect(settings.ownTuning).toBeNull();
    mockTuning.read = { ok: true, value: { name: 'Bells', offsets: Array<number>(128).fill(2) } };
    await press('Bring in a tuning file (.scl, .kbm)');
    expect(page.page.querySelector('[data-testid=tuning-problem]')).toBeNull();
    expect(settings).toMatchObject({ temperament: 'own', ownTuning: { name: 'Bells' } });
    choose('Equal');
    expect(page.has('radio', 'Bells')).toBe(true);
  });
});

test('the judging: how exacting, by whose school, and where the limits are seen', async () => {
  show(JudgingSettings);
  choose('exacting');
  for (const { id, name, about } of SCHOOLS) {
    choose(name);
    expect(settings).toMatchObject({ level: 'exacting', school: id });
    expect(page.words()).toContain(about);
  }
  await press('The table of limits');
  expect(mockPlaces).toEqual(['/limits']);
});
