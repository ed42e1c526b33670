import { Box, Flex, Input } from '@chakra-ui/react';
import { MapPin, X } from 'lucide-react';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { addMarkerHere } from '../desk/commands';
import { MARK_EVERY, markEvery, pinSelectionTo } from './marker-commands';
import type { MarkEvery } from './marker-commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Markers: set by key while it plays or in one step, named, coloured, and pinned to. */
export function MarkersTab() {
  const piece = usePiece();
  const times = useTimes();
  const markers = piece.markers
    .map((marker) => ({ marker, seconds: times.timeOf(marker.at) }))
    .sort((a, b) => a.seconds - b.seconds);
  return (
    <>
      <Flex gap="5px" flexWrap="wrap">
        <Button variant="soft" onClick={addMarkerHere}>
          {WORDS.setOneHere}
          <span className="mono muted">M</span>
        </Button>
        <Choice aria-label={WORDS.markEvery} value="" onChange={(e) => markEvery(e.target.value as MarkEvery)}>
          <option value="" disabled>
            {WORDS.mark2}
          </option>
          {Object.entries(MARK_EVERY).map(([id, m]) => (
            <option key={id} value={id}>
              {m.label}
            </option>
          ))}
        </Choice>
      </Flex>
      {markers.length === 0 && (
        <p className="muted">
          {WORDS.noMarkersYet}
          <span className="mono">M</span>
          {WORDS.setsOneAtThe}
        </p>
      )}
      <Box marginTop="8px">
        {markers.map(({ marker, seconds }) => (
          <Flex
            key={marker.id}
            className="list-row"
            role="group"
            aria-label={WORDS.marker(marker.name)}
            alignItems="center"
            gap="4px"
            padding="2px 4px"
          >
            <ColourField
              hasRoles={false}
              label={WORDS.colourOf(marker.name)}
              value={marker.colour}
              onChange={(colour, g) => edit([{ type: 'marker.put', marker: { ...marker, colour } }], g)}
              compact
            />
            <Input
              aria-label={WORDS.nameOf(marker.name)}
              key={marker.name}
              defaultValue={marker.name}
              background="none"
              minWidth="0"
              flex="1"
              padding="2px 4px"
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') e.currentTarget.blur();
              }}
              onBlur={(e) => {
                const name = e.target.value.trim();
                if (name !== marker.name) edit([{ type: 'marker.put', marker: { ...marker, name } }]);
              }}
            />
            <Button
              variant="quiet"
              className="mono"
              padding="2px 3px"
              aria-label={WORDS.goTo(marker.name)}
              onClick={() => playhead.set(seconds)}
            >
              {formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, seconds)))}
            </Button>
            <Button
              variant="quiet"
              padding="2px"
              aria-label={WORDS.pinTheSelectedLayers(marker.name)}
              title={WORDS.pinTheSelectedLayersHere}
              onClick={() => pinSelectionTo(marker)}
            >
              <MapPin size={14} />
            </Button>
            <Button
              variant="quiet"
              padding="2px"
              aria-label={WORDS.remove(marker.name)}
              onClick={() => edit([{ type: 'marker.remove', ids: [marker.id] }])}
            >
              <X size={14} />
            </Button>
          </Flex>
        ))}
      </Box>
      {markers.length > 0 && (
        <Button
          variant="soft"
          marginTop="8px"
          onClick={() => edit([{ type: 'marker.remove', ids: piece.markers.map((m) => m.id) }])}
        >
          {WORDS.clearAll}
        </Button>
      )}
    </>
  );
}
