import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useLocalSearchParams } from 'expo-router';
import { asHeard, mapSlide, shiftBy, type Elsewise, type MapSlide } from '@/core/ledger';
import { writtenRange } from '@/core/instruments';
import { leaning } from '@/core/tuning';
import { listed, plural, sized } from '@/core/verdict';
import { Body, Button, Heading, Screen, Soft, Stepper, useNoteName, useShape } from '@/ui';
import { MapBore, type Chosen } from './MapBore';
import { useMemory, useSeen, type Memory, type Seen } from './useMemory';

/** Low enough that the drawing and what moves it are seen together on a phone. */
const STEP = 11;

/** What another place of the slide, another temperature or another standard would make of the map. */
export function SlideScreen() {
  const { instrument } = useLocalSearchParams<{ instrument?: string }>();
  const { memory } = useMemory(instrument ?? null);
  const seen = useSeen(memory);
  if (!memory || !seen)
    return (
      <Screen caption="Map" title="Slide and weather">
        <Soft>Opening the map …</Soft>
      </Screen>
    );
  return <SlidePage memory={memory} seen={seen} />;
}

function SlidePage({ memory, seen }: { memory: Memory; seen: Seen }) {
  const { instrument, limits } = memory;
  const { map } = seen;
  const { wide, height } = useShape();
  const [elsewise, setElsewise] = useState<Elsewise>(() => asHeard(map.usual));
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const set = (part: Partial<Elsewise>) => setElsewise({ ...elsewise, ...part });
  const { temperatureC, a4 } = elsewise;
  const advice = useMemo(
    () => mapSlide(map, instrument, limits.centreCents, { slideMm: 0, temperatureC, a4 }),
    [map, instrument, limits, temperatureC, a4],
  );
  const shift = useMemo(() => shiftBy(instrument, map.usual, elsewise), [instrument, map, elsewise]);
  const { low, high } = writtenRange(instrument);
  const step = wide ? Math.max(11, Math.min(17, (height - 190) / (high - low))) : STEP;
  const beyond = map.notes.filter(
    ({ heard, centre, written }) => heard !== null && Math.abs(centre + shift(written)) > limits.centreCents,
  );
  const drawing = (
    <View>
      <MapBore
        instrument={instrument}
        notes={map.notes}
        breaks={[]}
        named={new Set(beyond.map(({ written }) => written))}
        chosen={chosen}
        onChoose={setChosen}
        step={step}
        shift={shift}
      />
      <Soft testID="beyond">
        {beyond.length === 0
          ? 'Every note that was heard would lie within your limit.'
          : `${plural(beyond.length, 'note')} that ${beyond.length === 1 ? 'was' : 'were'} heard would lie beyond your limit of ${limits.centreCents} cents.`}
      </Soft>
    </View>
  );
  const controls = (
    <View style={wide ? styles.block : styles.tight}>
      <Stepper
        label="Slide, joint or barrel, against where it is"
        value={elsewise.slideMm}
        low={-10}
        high={25}
        step={0.5}
        text={
          elsewise.slideMm === 0
            ? 'as it is'
            : `${sized(elsewise.slideMm, 'mm', 1)} ${elsewise.slideMm > 0 ? 'out' : 'in'}`
        }
        onChange={(slideMm) => set({ slideMm })}
      />
      <Stepper
        label="Temperature"
        value={elsewise.temperatureC}
        low={-5}
        high={40}
        text={`${elsewise.temperatureC} °C`}
        onChange={(next) => set({ temperatureC: next })}
      />
      <Stepper
        label="Pitch standard"
        value={elsewise.a4}
        low={385}
        high={480}
        text={`A ${elsewise.a4}`}
        onChange={(next) => set({ a4: next })}
      />
      <Button look="quiet" label="As it is now" onPress={() => setElsewise(asHeard(map.usual))} />
    </View>
  );
  const words = (
    <View style={styles.block}>
      <Advice advice={advice} memory={memory} seen={seen} onTry={(slideMm) => set({ slideMm })} />
      <Soft>
        A pull counts for more in a short tube than in a long one, so octaves shrink when it is pulled. The
        drawing follows what you set; filled marks were heard, hollow ones are guesses.
      </Soft>
    </View>
  );
  // On a phone what is set stands under what it moves, and the words after both.
  return wide ? (
    <Screen caption={`Map · ${instrument.name}`} title="Slide and weather" beside={drawing}>
      {words}
      <Heading>What if</Heading>
      {controls}
    </Screen>
  ) : (
    <Screen caption={`Map · ${instrument.name}`} title="Slide and weather">
      {drawing}
      {controls}
      {words}
    </Screen>
  );
}

interface AdviceProps {
  readonly advice: MapSlide | null;
  readonly memory: Memory;
  readonly seen: Seen;
  readonly onTry: (slideMm: number) => void;
}

/** The best place, what it mends and spoils, and what is left for the player. */
function Advice({ advice, memory, seen, onTry }: AdviceProps) {
  const nameOf = useNoteName();
  if (!advice)
    return (
      <Body testID="slide-advice">
        {`Too little of the ${memory.instrument.name} was heard to advise: four notes or more that lie a fourth apart. A tendency scan hears them all in a few minutes.`}
      </Body>
    );
  const { millimetres, worstNow, worstThen, mends, spoils, left } = advice;
  const limit = memory.limits.centreCents;
  const still = left.filter(({ cents }) => Math.abs(cents) > limit);
  const where = `${sized(millimetres, 'mm', 1)} ${millimetres > 0 ? 'further out' : 'further in'}`;
  return (
    <View style={styles.block} testID="slide-advice">
      <Heading>{Math.abs(millimetres) < 0.5 ? 'It is about right where it is' : `Best ${where}`}</Heading>
      {Math.abs(millimetres) < 0.5 ? null : (
        <Body>{`The worst note is out by ${sized(worstNow, 'cents')} now, and would be by ${sized(worstThen, 'cents')}. Try half of it, and play again.`}</Body>
      )}
      {mends.length > 0 ? <Body>{`Within your limit then: ${listed(mends.map(nameOf), 8)}.`}</Body> : null}
      {spoils.length > 0 ? <Body>{`No longer within it: ${listed(spoils.map(nameOf), 8)}.`}</Body> : null}
      {still.length > 0 ? (
        <Body>{`Left for you: ${listed(
          still.map(({ written, cents }) => `${nameOf(written)} ${leaning(cents)}`),
          8,
        )}.`}</Body>
      ) : null}
      {Math.abs(millimetres) < 0.5 ? null : (
        <Button look="quiet" label="Draw it there" onPress={() => onTry(millimetres)} />
      )}
      {memory.instrument.tube.model === 'cone' ? (
        <Soft>
          On a cone a pull is known by one figure for the whole instrument, which can be changed under
          Instruments; take the millimetres as a direction.
        </Soft>
      ) : null}
      {seen.map.usual.slideMm === null ? (
        <Soft>Where the slide stands was never told; all takes are held to have been at one place.</Soft>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  block: { gap: 10 },
  tight: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 24, rowGap: 4 },
});
