import { isVariant, originOf, setOf } from './song-files';

describe('the sets that songs of the bench belong to', () => {
  it.each([
    ['simutrans-data__42-stranger-echoes', 'kit: simutrans-data', 'kit'],
    ['simutrans-data__42-stranger-echoes~late', 'kit: simutrans-data', 'variants'],
    ['polka_at_116', 'quiet', 'styles'],
    ['rest_of_3_beats_motown_at_108', 'case: rest of beats', 'cases'],
    ['zoom_rnb', 'groove: zoom/rnb', 'grooves'],
  ])('%s', (name, family, set) => {
    expect(setOf({ name, family })).toBe(set);
  });

  it('a variant is told from its song, and lies in the same fold by its name', () => {
    expect([isVariant('a__b~cut'), isVariant('a__b')]).toEqual([true, false]);
    expect([originOf('a__b~cut'), originOf('a__b')]).toEqual(['a__b', 'a__b']);
  });
});
