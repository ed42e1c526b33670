import { Popover, Portal } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { FONT_FAMILIES, FONT_FAMILY_IDS } from '@core/text';
import type { FontFamilyId } from '@core/text';
import { registerCssFamily } from '../canvas/TextEditor';

/** The shipped families, each showing the layer's own words; searched by name or feel. */
export function FontChooser({ family, sample, onChoose }: { family: string; sample: string; onChoose: (family: FontFamilyId) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  useEffect(() => {
    if (isOpen) for (const id of FONT_FAMILY_IDS) void registerCssFamily(id);
  }, [isOpen]);
  const label = FONT_FAMILIES[family as FontFamilyId]?.label ?? family; // an unknown family shows by its id
  const shown = FONT_FAMILY_IDS.filter((id) => `${FONT_FAMILIES[id].label} ${FONT_FAMILIES[id].feel}`.toLowerCase().includes(search.toLowerCase()));
  return (
    <Popover.Root open={isOpen} onOpenChange={(e) => setOpen(e.open)} positioning={{ placement: 'left-start' }} lazyMount>
      <Popover.Trigger asChild><button className="quiet" aria-label={`Face: ${label}`} style={{ color: 'var(--text)' }}>{label}</button></Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="300px">
            <Popover.Body p="3">
              <input className="field" aria-label="Search faces" placeholder="Name or feel: warm, wide, hand …" value={search} onChange={(e) => setSearch(e.target.value)} onKeyDown={(e) => e.stopPropagation()} style={{ width: '100%', marginBottom: 8 }} />
              <div style={{ maxHeight: 360, overflowY: 'auto' }} role="listbox" aria-label="Faces">
                {shown.map((id) => (
                  <button key={id} role="option" aria-selected={id === family} className={`list-row${id === family ? ' on' : ''}`} style={{ display: 'block' }} onClick={() => { onChoose(id); setOpen(false); }}>
                    <span style={{ fontFamily: `'estrella ${id}'`, fontSize: 21, fontWeight: 600, display: 'block', overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis', lineHeight: 1.3 }}>{sample.split('\n')[0]?.slice(0, 40) || FONT_FAMILIES[id].label}</span>
                    <span className="muted" style={{ fontSize: 11.5 }}>{FONT_FAMILIES[id].label} · {FONT_FAMILIES[id].feel}</span>
                  </button>
                ))}
              </div>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
