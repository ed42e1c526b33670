import { isRole } from '@core/piece';
import type { Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Choice } from '../../ui/Choice';
import { WORDS } from './words';

/** Whether a picture shows a logo of the wardrobe, whatever that is. */
export function WornLogo({ layer }: { layer: Extract<Layer, { kind: 'picture' }> }) {
  const { logos } = usePiece().wardrobe;
  const { mediaId } = layer.content;
  if (Object.keys(logos).length === 0 && !isRole(mediaId)) return null;
  const role = isRole(mediaId) ? mediaId.slice(1) : '';
  return (
    <div className="prop">
      <span />
      <span className="name">{WORDS.wearsLogo}</span>
      <Choice
        aria-label={WORDS.wearsLogo}
        value={role}
        disabled={layer.locked}
        onChange={(e) => {
          const next = e.target.value === '' ? (logos[role] ?? mediaId) : `@${e.target.value}`;
          edit([{ type: 'layer.setContent', id: layer.id, content: { mediaId: next } }]);
        }}
      >
        <option value="">{WORDS.ownPicture}</option>
        {Object.keys(logos).map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </Choice>
    </div>
  );
}
