/** For tests: a microphone as the browser gives one. */
export interface FakeMicrophone {
  /** What the browser says that it left on. */
  settings: MediaTrackSettings;
  /** Why it is not given. */
  refused: Error | null;
  /** It goes away while it is used. */
  unplug: () => void;
  /** The device is switched off while it is used; it hears nothing while `muted`. */
  mute: () => void;
  muted: boolean;
  stopped: boolean;
}

export function installMicrophone(): FakeMicrophone {
  const fake: FakeMicrophone = {
    settings: {},
    refused: null,
    unplug: () => undefined,
    mute: () => undefined,
    muted: false,
    stopped: false,
  };
  const track = {
    label: 'Stand microphone',
    getSettings: () => fake.settings,
    stop: () => (fake.stopped = true),
    get muted() {
      return fake.muted;
    },
    addEventListener: (event: 'ended' | 'mute', listener: () => void) => {
      if (event === 'ended') fake.unplug = listener;
      else fake.mute = listener;
    },
  };
  const stream = { getAudioTracks: () => [track], getTracks: () => [track] };
  Object.defineProperty(navigator, 'mediaDevices', {
    value: { getUserMedia: () => (fake.refused ? Promise.reject(fake.refused) : Promise.resolve(stream)) },
    configurable: true,
  });
  return fake;
}
