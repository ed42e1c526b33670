import { Box, Flex, Popover, Portal } from '@chakra-ui/react';
import { Maximize, PanelsTopLeft, Ruler, ZoomIn, ZoomOut } from 'lucide-react';
import type { Format, GuideLine } from '@core/piece';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { magnify, setCanvasView, showWhole, useCanvasView } from './canvas-view';
import { addGuide, putGuide, removeGuide } from './guide-commands';
import { WORDS } from './words';

const STEP = 1.25;

/** How the canvas is looked at: how large, and with which lines over it. */
export function CanvasBar({ format, zoom }: { format: Format; zoom: number }) {
  const { showsRulers, showsGrid, gridStep, showsSafeArea, showsFormats } = useCanvasView();
  const hasOthers = usePiece().formats.length > 1;
  return (
    <Flex className="canvas-bar" role="toolbar" aria-label={WORDS.view} alignItems="center" gap="2px">
      <Button variant="quiet" aria-label={WORDS.zoomOut} onClick={() => magnify(1 / STEP)}>
        <ZoomOut size={15} />
      </Button>
      <Box as="span" className="mono" minWidth="44px" textAlign="center" data-testid="canvas-zoom">
        {`${Math.round(zoom * 100)} %`}
      </Box>
      <Button variant="quiet" aria-label={WORDS.zoomIn} onClick={() => magnify(STEP)}>
        <ZoomIn size={15} />
      </Button>
      <Button variant="quiet" aria-label={WORDS.wholeFrame} onClick={showWhole}>
        <Maximize size={15} />
      </Button>
      {hasOthers && (
        <Button
          variant="quiet"
          aria-label={WORDS.allFrames}
          aria-pressed={showsFormats}
          onClick={() => setCanvasView({ showsFormats: !showsFormats })}
        >
          <PanelsTopLeft size={15} />
        </Button>
      )}
      <Popover.Root positioning={{ placement: 'top-end' }} lazyMount unmountOnExit>
        <Popover.Trigger asChild>
          <Button variant="quiet" aria-label={WORDS.viewOptions}>
            <Ruler size={15} />
          </Button>
        </Popover.Trigger>
        <Portal>
          <Popover.Positioner>
            <Popover.Content aria-label={WORDS.viewOptions} className="view-options">
              <Tick checked={showsRulers} onChange={(on) => setCanvasView({ showsRulers: on })}>
                {WORDS.rulers}
              </Tick>
              <Tick checked={showsSafeArea} onChange={(on) => setCanvasView({ showsSafeArea: on })}>
                {WORDS.safeArea}
              </Tick>
              <Flex alignItems="center" gap="8px">
                <Tick checked={showsGrid} onChange={(on) => setCanvasView({ showsGrid: on })}>
                  {WORDS.grid}
                </Tick>
                <NumberField
                  label={WORDS.gridStep}
                  value={gridStep}
                  unit="px"
                  min={2}
                  max={2000}
                  decimals={0}
                  onChange={(v) => setCanvasView({ gridStep: Math.round(v) })}
                />
              </Flex>
              <hr className="rule" />
              <GuideList format={format} />
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
    </Flex>
  );
}

/** Guides by number: for exact places, and for whoever does not use a pointer. */
function GuideList({ format }: { format: Format }) {
  const { guides } = usePiece();
  const sideOf = (guide: GuideLine) => (guide.axis === 'x' ? format.width : format.height);
  return (
    <>
      <Box as="strong" fontWeight="600">
        {WORDS.guides}
      </Box>
      {guides.length === 0 && <p className="muted">{WORDS.noGuides}</p>}
      {guides.map((guide, i) => {
        const name = WORDS.guideAt(guide.axis, i + 1);
        return (
          <Flex key={guide.id} alignItems="center" gap="6px">
            <Box as="span" flex="1">
              {name}
            </Box>
            <NumberField
              label={name}
              value={guide.at * sideOf(guide)}
              unit="px"
              decimals={1}
              min={0}
              max={sideOf(guide)}
              onChange={(v, gesture) => putGuide({ ...guide, at: v / sideOf(guide) }, gesture)}
            />
            <Button variant="quiet" aria-label={WORDS.removeGuide(name)} onClick={() => removeGuide(guide.id)}>
              ×
            </Button>
          </Flex>
        );
      })}
      <Flex gap="6px">
        <Button variant="soft" onClick={() => addGuide('x')}>
          {WORDS.addUpright}
        </Button>
        <Button variant="soft" onClick={() => addGuide('y')}>
          {WORDS.addLevel}
        </Button>
      </Flex>
    </>
  );
}
