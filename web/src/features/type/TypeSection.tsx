import { Span } from '@chakra-ui/react';
import { STANDS, TRIMS, furtherAxes } from '@core/text';
import type { FontAxis } from '@core/text';
import type { TextLayer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { AlongSection } from './AlongSection';
import { FontChooser } from './FontChooser';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** The face of a text and where its lines end. */
export function FaceSection({ layer }: { layer: TextLayer }) {
  const set = (content: Record<string, unknown>) => edit([{ type: 'layer.setContent', id: layer.id, content }]);
  const { content } = layer;
  return (
    <>
      <div className="prop">
        <span />
        <span className="name">{WORDS.face2}</span>
        <FontChooser
          family={content.family}
          sample={content.text}
          onChoose={(family, before) =>
            edit([...before, { type: 'layer.setContent', id: layer.id, content: { family } }])
          }
        />
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.align}</span>
        <Span display="flex">
          {(['left', 'center', 'right'] as const).map((align) => (
            <Button
              key={align}
              variant="quiet"
              aria-label={WORDS.alignAlign(align)}
              aria-pressed={content.align === align}
              onClick={() => set({ align })}
            >
              <svg width="15" height="12" viewBox="0 0 15 12" aria-hidden="true">
                {[14, 8, 11].map((w, i) => (
                  <rect
                    key={i}
                    x={align === 'left' ? 0 : align === 'right' ? 14 - w : (14 - w) / 2}
                    y={i * 5}
                    width={w}
                    height="1.8"
                    fill="currentColor"
                  />
                ))}
              </svg>
            </Button>
          ))}
          <Button
            variant="quiet"
            aria-pressed={content.italic}
            aria-label={WORDS.italic}
            fontStyle="italic"
            minWidth="26px"
            justifyContent="center"
            onClick={() => set({ italic: !content.italic })}
          >
            i
          </Button>
        </Span>
      </div>
      <div className="prop">
        <span />
        <span className="name">{WORDS.lineWidth}</span>
        {content.wrapWidth === null ? (
          <Button variant="quiet" onClick={() => set({ wrapWidth: 800 })}>
            {WORDS.off}
          </Button>
        ) : (
          <Span display="flex">
            <NumberField
              label={WORDS.lineWidth}
              value={content.wrapWidth}
              unit="px"
              min={10}
              onChange={(wrapWidth) => set({ wrapWidth })}
            />
            <Button variant="quiet" onClick={() => set({ wrapWidth: null })} aria-label={WORDS.keepMyOwnLines}>
              ×
            </Button>
          </Span>
        )}
      </div>
    </>
  );
}

/** What a text is measured by, the curve it runs along, and what is seen through it. */
export function SettingSection({ layer }: { layer: TextLayer }) {
  const piece = usePiece();
  const set = (content: Record<string, unknown>) => edit([{ type: 'layer.setContent', id: layer.id, content }]);
  const { content } = layer;
  const pictures = piece.media.filter((m) => m.kind === 'picture' || m.kind === 'footage');
  return (
    <>
      <AlongSection layer={layer} />
      <div className="prop">
        <span />
        <span className="name">{WORDS.trim}</span>
        <Choice aria-label={WORDS.trim} value={content.trim} onChange={(e) => set({ trim: e.target.value })}>
          {Object.entries(TRIMS).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </div>
      {!content.area && (
        <div className="prop">
          <span />
          <span className="name">{WORDS.positionIsIts}</span>
          <Choice
            aria-label={WORDS.positionIsIts}
            value={content.stands}
            onChange={(e) => set({ stands: e.target.value })}
          >
            {Object.entries(STANDS).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </div>
      )}
      {(pictures.length > 0 || content.picture !== null) && (
        <div className="prop">
          <span />
          <span className="name">{WORDS.seenThrough}</span>
          <Choice
            aria-label={WORDS.seenThroughTheLetters}
            value={content.picture ?? ''}
            onChange={(e) => set({ picture: e.target.value || null })}
          >
            <option value="">{WORDS.nothing}</option>
            {pictures.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </Choice>
        </div>
      )}
    </>
  );
}

/** Which of the properties of axes a font has, and what it calls those that have no common name. */
export function axisLabels(
  axes: readonly FontAxis[],
): Partial<Record<'letterWidth' | 'lean' | 'opticalSize' | 'axisA' | 'axisB' | 'axisC', string | null>> {
  const registered = { wdth: 'letterWidth', slnt: 'lean', opsz: 'opticalSize' } as const;
  return {
    ...Object.fromEntries(
      Object.entries(registered)
        .filter(([tag]) => axes.some((axis) => axis.tag === tag))
        .map(([, property]) => [property, null]),
    ),
    ...Object.fromEntries(
      (['axisA', 'axisB', 'axisC'] as const).flatMap((property, i) => {
        const axis = furtherAxes(axes)[i];
        return axis ? [[property, axis.name]] : [];
      }),
    ),
  };
}
