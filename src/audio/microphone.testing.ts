/** For tests: a microphone as the browser gives one. */
export interface FakeMicrophone {
  /** What the browser says that it left on. */
  settings: MediaTrackSettings;
  /** Why it is not given. */
  refused: Error | null;
  /** It goes away while it is used. */
  unplug: () => void;
  stopped: boolean;
}

export function installMicrophone(): FakeMicrophone {
  const fake: FakeMicrophone = { settings: {}, refused: null, unplug: () => undefined, stopped: false };
  const track = {
    label: 'Stand microphone',
    getSettings: () => fake.settings,
    stop: () => (fake.stopped = true),
    addEventListener: (_: string, listener: () => void) => (fake.unplug = listener),
  };
  const stream = { getAudioTracks: () => [track], getTracks: () => [track] };
  Object.defineProperty(navigator, 'mediaDevices', {
    value: { getUserMedia: () => (fake.refused ? Promise.reject(fake.refused) : Promise.resolve(stream)) },
    configurable: true,
  });
  return fake;
}
