import { Flex, Input, Span } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { STARTER_STYLES, lookOf, sameLook } from '@core/piece';
import type { SavedStyle, TextLayer } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Saved looks: put on, saved anew for all that wear them, forgotten. */
export function StyleSection({ layer }: { layer: TextLayer }) {
  const piece = usePiece();
  const selected = useDesk((s) => s.selectedLayers);
  const [name, setName] = useState<string | null>(null);
  const worn = piece.styles.find((s) => s.id === layer.content.style);
  const ids = selected.includes(layer.id) ? [...selected] : [layer.id];
  const wearers = worn ? piece.layers.filter((l) => l.kind === 'text' && l.content.style === worn.id).length : 0;
  const save = () => {
    if (!name?.trim()) return;
    const style: SavedStyle = { ...lookOf(layer), id: newId(), name: name.trim() };
    edit([
      { type: 'style.put', style },
      { type: 'style.wear', ids, styleId: style.id },
    ]);
    setName(null);
  };
  const putOn = (value: string) => {
    const starter = STARTER_STYLES.find((s) => `new:${s.name}` === value);
    if (starter) edit([{ type: 'style.dress', ids, look: { content: starter.content, values: starter.values } }]);
    else if (value) edit([{ type: 'style.wear', ids, styleId: value }]);
  };
  const isChanged = worn !== undefined && !sameLook(lookOf(layer), worn);
  return (
    <>
      <div className="prop">
        <span />
        <span className="name">{WORDS.style}</span>
        <Span display="flex" gap="2px" alignItems="center">
          <Choice
            aria-label={WORDS.style}
            maxWidth="112px"
            value={worn?.id ?? ''}
            onChange={(e) => putOn(e.target.value)}
          >
            <option value="">{WORDS.none}</option>
            {piece.styles.length > 0 && (
              <optgroup label={WORDS.saved}>
                {piece.styles.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </optgroup>
            )}
            <optgroup label={WORDS.toBeginWith}>
              {STARTER_STYLES.map((s) => (
                <option key={s.name} value={`new:${s.name}`}>
                  {s.name}
                </option>
              ))}
            </optgroup>
          </Choice>
          <Button
            variant="quiet"
            aria-label={WORDS.saveAsAStyle}
            title={WORDS.saveThisLookAs}
            aria-expanded={name !== null}
            padding="4px"
            onClick={() => setName(name === null ? (worn ? `${worn.name} 2` : layer.name.slice(0, 40)) : null)}
          >
            <Plus size={15} />
          </Button>
        </Span>
      </div>
      <Flex flexWrap="wrap" gap="4px" justifyContent="flex-end">
        {name !== null && (
          <>
            <Input
              aria-label={WORDS.nameOfTheStyle}
              autoFocus
              value={name}
              maxLength={80}
              flex="1"
              minWidth="90px"
              onChange={(e) => setName(e.target.value)}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') save();
                if (e.key === 'Escape') setName(null);
              }}
            />
            <Button variant="soft" disabled={!name.trim()} onClick={save}>
              {WORDS.save}
            </Button>
          </>
        )}
        {worn && isChanged && (
          <Button
            variant="quiet"
            title={WORDS.everythingThatWearsChanges(worn.name)}
            onClick={() => {
              edit([{ type: 'style.put', style: { ...worn, ...lookOf(layer) } }]);
              setView({ notice: WORDS.styleUpdated(worn.name, wearers) });
            }}
          >
            {WORDS.saveAnew}
          </Button>
        )}
        {worn && isChanged && (
          <Button variant="quiet" onClick={() => edit([{ type: 'style.wear', ids: [layer.id], styleId: worn.id }])}>
            {WORDS.backToIt}
          </Button>
        )}
        {worn && (
          <Button
            variant="quiet"
            aria-label={WORDS.forgetName(worn.name)}
            onClick={() => edit([{ type: 'style.forget', id: worn.id }])}
          >
            {WORDS.forget}
          </Button>
        )}
      </Flex>
    </>
  );
}
