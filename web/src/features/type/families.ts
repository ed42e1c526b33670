import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { familyLabel, ownFamilyId } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { FONT_FAMILIES, FONT_FAMILY_IDS } from '@core/text';
import type { FontAxis } from '@core/text';
import { api, call } from '../../platform/api';
import { browserPieceFonts } from '../../platform/browser-host';
import { memory } from '../../platform/memory';
import { usePiece } from '../../store/selectors';
import { WORDS } from './words';

/** A family as it is offered: one that ships, or one that was brought in, with the files of all its styles. */
export interface OfferedFamily {
  readonly id: string;
  readonly label: string;
  readonly feel: string;
  /** Empty for a family that ships. */
  readonly files: readonly MediaRef[];
}

const SHIPPED: readonly OfferedFamily[] = FONT_FAMILY_IDS.map((id) => ({
  id,
  label: FONT_FAMILIES[id].label,
  feel: FONT_FAMILIES[id].feel,
  files: [],
}));

/** Fonts brought in, styles of a family together. */
function grouped(fonts: readonly MediaRef[]): OfferedFamily[] {
  const families = new Map<string, MediaRef[]>();
  for (const ref of fonts) {
    if (!ref.font) continue;
    const id = ownFamilyId(ref.font.family);
    const files = families.get(id) ?? [];
    if (!files.some((f) => f.hash === ref.hash)) families.set(id, [...files, ref]);
  }
  return [...families].map(([id, files]) => ({
    id,
    label: familyLabel(id),
    feel: WORDS.yourOwn(files.map((f) => f.font?.style ?? '').join(', ')),
    files,
  }));
}

/** Every family there is: this piece's own, those of other pieces on this server, and the shipped ones. */
export function useFamilies(isWanted: boolean): readonly OfferedFamily[] {
  const piece = usePiece();
  const { data } = useQuery({
    queryKey: ['fonts', piece.media.length],
    enabled: isWanted,
    queryFn: () => call(api.media.fonts.$get()),
  });
  return useMemo(() => [...grouped([...piece.media, ...(data ?? [])]), ...SHIPPED], [piece.media, data]);
}

/** The axes of a family's font; empty until they are known. */
export function useAxes(family: string): readonly FontAxis[] {
  const { media } = usePiece();
  const [axes, setAxes] = useState<readonly FontAxis[]>([]);
  useEffect(() => {
    let isCurrent = true;
    void browserPieceFonts({ media }).then(
      ({ manifest }) => isCurrent && setAxes(manifest.families[family]?.axes ?? []),
    );
    return () => {
      isCurrent = false;
    };
  }, [family, media]);
  return axes;
}

const FAVOURITES = 'estrella.favourite-faces';

function readFavourites(): string[] {
  try {
    const stored: unknown = JSON.parse(memory.getItem(FAVOURITES) ?? '[]');
    return Array.isArray(stored) ? stored.filter((id) => typeof id === 'string') : [];
  } catch {
    return []; // nothing, or not ours: no favourites then
  }
}

/** Families that were given a star; they stay in this browser. */
export function useFavourites(): { readonly favourites: readonly string[]; toggle: (id: string) => void } {
  const [favourites, set] = useState(readFavourites);
  return {
    favourites,
    toggle(id) {
      const next = favourites.includes(id) ? favourites.filter((f) => f !== id) : [...favourites, id];
      set(next);
      memory.setItem(FAVOURITES, JSON.stringify(next));
    },
  };
}
