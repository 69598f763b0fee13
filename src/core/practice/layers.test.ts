import { reportTune } from '#core/report';
import { writtenNotes } from '#core/tune';
import { inventedTune } from '../testing/books';
import { randomTune } from '../testing/tunes';
import { layerOf, PRACTICE_LAYERS } from './layers';

const tunes = [1, 2, 3, 4].flatMap((seed) => [inventedTune(seed), randomTune(seed)]);

test('every layer has the notes of the tune, and each more of it than the one before', () => {
  for (const tune of tunes) {
    const layers = PRACTICE_LAYERS.map((layer) => layerOf(tune, layer));
    for (const own of layers)
      expect(writtenNotes(own).map(({ id, pitch }) => [id, pitch])).toEqual(
        writtenNotes(tune).map(({ id, pitch }) => [id, pitch]),
      );
    expect(layers[layers.length - 1]).toBe(tune);
  }
});

test('the melody is a stroke for every note on one string at a time, without colour', () => {
  for (const tune of tunes) {
    const melody = layerOf(tune, 'melody');
    const { unrolled, figures } = reportTune(melody);
    expect(figures.bowed.every(({ inStroke }) => inStroke === 1)).toBe(true);
    expect(unrolled.notes.every(({ note }) => note.drone === undefined && note.stops === undefined)).toBe(true);
    expect(writtenNotes(melody).every(({ marks }) => !marks?.includes('cut') && !marks?.includes('roll'))).toBe(true);
  }
});

test('the layer of bowing is bowed as the tune is', () => {
  for (const tune of tunes)
    expect(reportTune(layerOf(tune, 'bowing')).figures.bowed.map(({ bow, stroke }) => [bow, stroke])).toEqual(
      reportTune(tune).figures.bowed.map(({ bow, stroke }) => [bow, stroke]),
    );
});
