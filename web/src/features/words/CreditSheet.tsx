import { Box, Textarea } from '@chakra-ui/react';
import { useState } from 'react';
import {
  creditLayers,
  creditRows,
  leadFormat,
  readCredits,
  rollCredits,
  rollMotion,
  writeCredits,
  trackOf,
} from '@core/piece';
import type { RollPlan } from '@core/piece';
import { framesPerSecond } from '@core/time';
import { newId } from '../../platform/ids';
import { playhead } from '../../platform/clock';
import { edit, selectLayers, setView } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Most letters of a column. */
const MOST = 5000;

/** A closing roll: a list of who did what, which runs up the frame in whole pixels and comes to rest. */
export function CreditSheet() {
  const piece = usePiece();
  const times = useTimes();
  const layers = creditLayers(piece);
  const [first] = layers;
  const lead = leadFormat(piece);
  const [text, setText] = useState(() => writeCredits(creditRows(piece)));
  const keys = first?.tracks.position?.keyframes ?? [];
  const from = first ? times.timeOf(first.start) : Math.min(playhead.seconds, Math.max(0, times.end - 2));
  const moving = keys[1] && keys[0] ? times.timeOf(keys[1].at) - times.timeOf(keys[0].at) : null;
  const [length, setLength] = useState(moving ?? Math.max(3, Math.min(12, times.end - from - 1.5)));
  const [hold, setHold] = useState(
    first && keys[1] ? Math.max(0, times.timeOf(first.end) - times.timeOf(keys[1].at)) : 1.5,
  );
  const [size, setSize] = useState(
    first ? Number(trackOf(first, 'size')?.value ?? 40) : Math.round(Math.min(lead.width, lead.height) / 22),
  );
  const rows = readCredits(text);
  const plan: RollPlan = { from, length, hold, size, colour: piece.sheet.colour, accent: piece.sheet.accent };
  const motion = rollMotion(Math.max(1, rows.length), plan, lead, piece.frameRate);
  const real = motion.frames / framesPerSecond(piece.frameRate);
  const roll = () => {
    if (text.length > MOST) return setView({ notice: WORDS.aRollCanHave(MOST, text.length) });
    const made = rollCredits(piece, rows, plan, newId);
    edit([{ type: 'phrases.change', layers: made, remove: layers.map((l) => l.id) }]);
    selectLayers(made.map((l) => l.id));
  };
  return (
    <>
      <p className="muted">{WORDS.oneLineEachWhat}</p>
      <Textarea
        className="mono"
        aria-label={WORDS.credits}
        rows={9}
        value={text}
        spellCheck={false}
        placeholder={WORDS.puertoLumoKiteWeek}
        width="100%"
        fontSize="12.5px"
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="prop">
        <span />
        <span className="name">{WORDS.rollsFor}</span>
        <NumberField
          label={WORDS.rollsFor}
          value={length}
          unit="s"
          min={0.5}
          max={300}
          step={0.1}
          onChange={setLength}
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.holdAtTheEnd}</span>
        <NumberField label={WORDS.holdAtTheEnd} value={hold} unit="s" min={0} max={60} step={0.1} onChange={setHold} />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.sizeOfTheNames}</span>
        <NumberField label={WORDS.sizeOfTheNames} value={size} unit="px" min={8} max={400} onChange={setSize} />
      </div>
      <Box as="p" className="muted" fontSize="12px">
        {WORDS.wholePixelAFrame(motion.speed, real.toFixed(1))}
      </Box>
      <Button variant="lamp" disabled={rows.length === 0} onClick={roll}>
        {layers.length > 0 ? WORDS.rollAnew : WORDS.roll}
      </Button>
    </>
  );
}
