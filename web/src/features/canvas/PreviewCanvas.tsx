import { Box } from '@chakra-ui/react';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { formatOf } from '@core/piece';
import { frameMiddle, framesPerSecond, secondsToFrame } from '@core/time';
import { playhead } from '../../platform/clock';
import { heardPasses } from '../../platform/playback';
import { setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { BeatFlash } from './BeatFlash';
import { DrawPath } from './DrawPath';
import { CanvasBar } from './CanvasBar';
import { showWhole, useCanvasView } from './canvas-view';
import { FormatStrip } from './FormatStrip';
import { Handles } from './Handles';
import { OwnGuides } from './OwnGuides';
import { PenTool } from './PenTool';
import { Rulers } from './Rulers';
import { useViewByPointer } from './use-view-by-pointer';
import { followPiece, onPreviewFailure, previewStats, sendToPreview } from './preview-client';
import { TextEditor } from './TextEditor';

/** Smallest share of the wanted resolution that playing falls back to. */
const LOWEST_QUALITY = 0.3;
/** From so many screen pixels a pixel on, the pixels themselves are shown. */
const PIXELS_FROM = 2;
/** Room between the frame and the edges of the canvas's room, pixels of the screen. */
const MARGIN = 24;
/** What falls on the playhead counts as reached, whichever side of it float64 put it. */
const SAME_MOMENT = 1e-7;

/** The canvas: painted by the worker at the size it is seen, with the handles over it. */
export function PreviewCanvas() {
  const piece = usePiece();
  const formatId = useDesk((s) => s.formatId);
  const isPlaying = useDesk((s) => s.isPlaying);
  const editingText = useDesk((s) => s.editingText);
  const drawingFor = useDesk((s) => s.drawingFor);
  const flashesBeats = useDesk((s) => s.flashesBeats);
  const format = formatOf(piece, formatId);
  const holder = useRef<HTMLDivElement>(null);
  const slot = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 640, height: 360 });
  const quality = useRef(1);

  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const measure = () => setRoom({ width: element.clientWidth - MARGIN, height: element.clientHeight - MARGIN });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, []);

  // A canvas can be handed to a worker once, so it is made here and not by React.
  useEffect(() => {
    const parent = slot.current;
    if (!parent) return;
    const canvas = document.createElement('canvas');
    canvas.setAttribute('aria-label', 'Preview of the piece');
    canvas.style.width = '100%';
    canvas.style.height = '100%';
    parent.prepend(canvas);
    sendToPreview({ type: 'canvas', canvas: canvas.transferControlToOffscreen() });
    return () => canvas.remove();
  }, []);

  useEffect(() => followPiece(), []);

  useEffect(() => onPreviewFailure((message) => setView({ notice: message })), []);

  const { magnified, pan, showsRulers, showsFormats } = useCanvasView();
  useViewByPointer(holder);
  // Another format is seen whole first.
  useEffect(showWhole, [format.id]);

  const whole = { width: room.width + MARGIN, height: room.height + MARGIN };
  const fit = Math.max(0.02, Math.min(room.width / format.width, room.height / format.height));
  const zoom = fit * magnified;
  useEffect(() => {
    const full = Math.min(1, zoom * window.devicePixelRatio);
    quality.current = 1;
    let lastFrame = -1;
    let sinceChange = 0;
    return playhead.subscribe((seconds) => {
      // While playing only whole frames are shown, as the export will have them.
      const frame = secondsToFrame(seconds, piece.frameRate);
      if (isPlaying && frame !== lastFrame && ++sinceChange > 12) {
        const budget = 1000 / framesPerSecond(piece.frameRate);
        if (previewStats().milliseconds > budget * 0.9 && quality.current > LOWEST_QUALITY) {
          quality.current = Math.max(LOWEST_QUALITY, quality.current * 0.75);
          sinceChange = 0;
        }
      }
      lastFrame = frame;
      const passes = isPlaying ? heardPasses() : [];
      // Standing still, the very moment of the playhead is shown: what is set there is what is seen there, a rounding
      // error or not.
      sendToPreview({
        type: 'frame',
        seconds: isPlaying ? frameMiddle(frame, piece.frameRate) : seconds + SAME_MOMENT,
        scale: full * (isPlaying ? quality.current : 1),
        skipLayerId: editingText,
        heard: passes.length > 0 ? { passes, frameRate: piece.frameRate } : null,
      });
    });
  }, [zoom, isPlaying, piece.frameRate, editingText, format.id]);

  return (
    <div className="stage" ref={holder}>
      <Box
        ref={slot}
        position="relative"
        boxShadow="0 2px 30px #0005"
        flexShrink="0"
        className={zoom > PIXELS_FROM ? 'magnified' : undefined}
        style={{
          width: format.width * zoom,
          height: format.height * zoom,
          transform:
            magnified === 1 && pan[0] === 0 && pan[1] === 0 ? undefined : `translate(${pan[0]}px, ${pan[1]}px)`,
        }}
        data-testid="canvas"
      >
        <Handles format={format} zoom={zoom} />
        <OwnGuides format={format} zoom={zoom} />
        {flashesBeats && <BeatFlash />}
        {drawingFor &&
          (drawingFor.kind === 'pen' || drawingFor.kind === 'mask' ? (
            <PenTool drawing={drawingFor} format={format} zoom={zoom} />
          ) : (
            <DrawPath drawing={drawingFor} format={format} zoom={zoom} />
          ))}
        {editingText && <TextEditor layerId={editingText} zoom={zoom} format={format} />}
      </Box>
      {showsRulers && (
        <Rulers
          format={format}
          zoom={zoom}
          origin={[
            (whole.width - format.width * zoom) / 2 + pan[0],
            (whole.height - format.height * zoom) / 2 + pan[1],
          ]}
          room={whole}
        />
      )}
      {showsFormats && <FormatStrip />}
      <CanvasBar format={format} zoom={zoom} />
    </div>
  );
}
