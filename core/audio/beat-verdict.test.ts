import { noBeatSounds } from '../../bench/made/no-beat';
import { analyseSong } from './analyse-song';
import { hasSteadyBeat, rivalTempo } from './beat-verdict';

describe('what is said of the beats', () => {
  it.each(noBeatSounds(1).filter(({ name }) => name !== 'drone'))('finds no steady beat in $name', ({ samples }) => {
    expect(hasSteadyBeat(analyseSong(samples()))).toBe(false);
  });
  it('finds none in silence or in two claps', () => {
    expect(hasSteadyBeat({ confidence: [] })).toBe(false);
    expect(hasSteadyBeat({ confidence: [1, 1] })).toBe(false);
  });
  it('knows when half or twice the tempo fits about as well', () => {
    const tempi = [
      { bpm: 71, likelihood: 0.5 },
      { bpm: 142.4, likelihood: 0.3 },
    ];
    expect(rivalTempo({ tempi })).toEqual({ bpm: 142.4, isDouble: true });
    expect(rivalTempo({ tempi: [...tempi].reverse() })).toEqual({ bpm: 71, isDouble: false });
    expect(rivalTempo({ tempi: [tempi[0]!, { bpm: 142, likelihood: 0.1 }] })).toBeNull();
    expect(rivalTempo({ tempi: [tempi[0]!, { bpm: 106, likelihood: 0.5 }] })).toBeNull();
    expect(rivalTempo({ tempi: [] })).toBeNull();
  });
});
