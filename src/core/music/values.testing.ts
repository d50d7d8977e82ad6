import fc from 'fast-check';
import { writtenRange, type Instrument } from '@/core/instruments';
import { optionsOf, type ParameterSpec } from '.';

function valueOf(spec: ParameterSpec, instrument: Instrument): fc.Arbitrary<unknown> {
  const { low, high } = writtenRange(instrument);
  const places = Math.round((high - low) / instrument.step);
  const note = fc.integer({ min: 0, max: places }).map((place) => low + place * instrument.step);
  switch (spec.kind) {
    case 'note':
      return note;
    case 'range': {
      const least = Math.ceil(spec.least / instrument.step);
      return fc
        .tuple(fc.integer({ min: 0, max: places - least }), fc.nat(places - least))
        .map(([from, wider]) => ({
          low: low + from * instrument.step,
          high: low + Math.min(places, from + least + wider) * instrument.step,
        }));
    }
    case 'tempo':
      return spec.free
        ? fc.option(fc.integer({ min: spec.low, max: spec.high }))
        : fc.integer({ min: spec.low, max: spec.high });
    case 'count':
      return fc.integer({ min: spec.low, max: spec.high });
    case 'choice':
      return fc.constantFrom(...optionsOf(spec, instrument).map(([id]) => id));
    case 'flag':
      return fc.boolean();
    case 'model':
      return fc.constant(null);
  }
}

/** Any values that an instrument's player may set. */
export const anyValues = (specs: Readonly<Record<string, ParameterSpec>>, instrument: Instrument) =>
  fc.record(
    Object.fromEntries(Object.entries(specs).map(([name, spec]) => [name, valueOf(spec, instrument)])),
  );
