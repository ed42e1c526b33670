import { edit, useDesk } from '../../store/desk-store';
import { usePiece, useSelectedLayer } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { Choice } from '../../ui/Choice';
import { WORDS } from './words';

const CHOICES = { piece: WORDS.asThePiece, on: WORDS.yes, off: WORDS.no } as const;

/** Motion blur of the piece and of the selected layers, and copies that follow. */
export function SmearTab() {
  const piece = usePiece();
  const layer = useSelectedLayer();
  const ids = useDesk((s) => s.selectedLayers);
  const trail = layer?.trail ?? null;
  const setTrail = (change: Partial<NonNullable<typeof trail>> | null, gesture: string | null = null) =>
    edit(
      [
        {
          type: 'layer.setSmear',
          ids: [...ids],
          trail: change === null ? null : { copies: 5, spacing: 0.05, fade: 0.7, ...trail, ...change },
        },
      ],
      gesture,
    );
  return (
    <>
      <p className="muted">{WORDS.howLongTheShutter}</p>
      <div className="prop">
        <span />
        <span className="name">{WORDS.shutterOfThePiece}</span>
        <NumberField
          label={WORDS.shutterOfThePiece}
          value={piece.shutter}
          unit="°"
          min={0}
          max={720}
          step={5}
          onChange={(shutter, g) => edit([{ type: 'piece.setShutter', shutter }], g)}
        />
      </div>
      {layer && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.blursThisLayer}</span>
            <Choice
              aria-label={WORDS.blursThisLayer}
              value={layer.motionBlur}
              onChange={(e) =>
                edit([{ type: 'layer.setSmear', ids: [...ids], motionBlur: e.target.value as keyof typeof CHOICES }])
              }
            >
              {Object.entries(CHOICES).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </div>
          <hr className="rule" />
          <div className="prop">
            <span />
            <span className="name">{WORDS.copiesThatFollow}</span>
            <NumberField
              label={WORDS.copiesThatFollow}
              value={trail?.copies ?? 0}
              min={0}
              max={24}
              decimals={0}
              onChange={(v, g) => setTrail(Math.round(v) === 0 ? null : { copies: Math.round(v) }, g)}
            />
          </div>
          {trail && (
            <div className="prop">
              <span />
              <span className="name">{WORDS.behindOneAnother}</span>
              <NumberField
                label={WORDS.behindOneAnother}
                value={trail.spacing * 1000}
                unit="ms"
                min={5}
                max={2000}
                onChange={(v, g) => setTrail({ spacing: v / 1000 }, g)}
              />
            </div>
          )}
          {trail && (
            <div className="prop">
              <span />
              <span className="name">{WORDS.eachKeeps}</span>
              <NumberField
                label={WORDS.eachKeeps}
                value={trail.fade * 100}
                unit="%"
                min={0}
                max={100}
                onChange={(v, g) => setTrail({ fade: v / 100 }, g)}
              />
            </div>
          )}
        </>
      )}
    </>
  );
}
