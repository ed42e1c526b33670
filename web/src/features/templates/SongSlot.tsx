import { Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { createMusic } from '@core/piece';
import type { Edit } from '@core/piece';
import { useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { FileButton } from '../../ui/FilePick';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { importFile } from '../panels/import-file';
import { WORDS } from './words';

const SONGS = ['audio'] as const;

/** What a slot of a song holds: one of the piece's songs, or one that is brought in. It becomes the music. */
export function SongSlot({
  name,
  value,
  disabled,
  onChange,
}: {
  name: string;
  value: string;
  disabled: boolean;
  onChange: (value: string, before?: readonly Edit[]) => void;
}) {
  const { media, music } = usePiece();
  const [busy, setBusy] = useState<string | null>(null);
  const songs = media.filter(({ kind }) => kind === 'audio');
  const choose = (id: string): void => {
    const ref = songs.find((song) => song.id === id);
    onChange(id, ref ? [{ type: 'music.set', music: createMusic(ref, music) }] : []);
  };
  const bring = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const before = useDesk.getState().piece?.music?.mediaId;
    const tell = (p: { stage: string; share: number } | null) =>
      setBusy(p && `${p.stage} ${Math.round(p.share * 100)} %`);
    await importFile(file, SONGS, tell, new AbortController().signal);
    const now = useDesk.getState().piece?.music?.mediaId;
    if (now !== undefined && now !== before) onChange(now);
  };
  return (
    <Flex gap="6px" alignItems="center">
      {songs.length > 0 && (
        <Choice aria-label={name} value={value} disabled={disabled} onChange={(e) => choose(e.target.value)}>
          <option value="">{WORDS.noSong}</option>
          {songs.map((song) => (
            <option key={song.id} value={song.id}>
              {song.name}
            </option>
          ))}
        </Choice>
      )}
      {busy ? (
        <span role="status">{busy}</span>
      ) : (
        <FileButton
          label={WORDS.bringSong(name)}
          accept={MEDIA_ON_DESK.audio.accept}
          onFiles={([file]) => void bring(file)}
        >
          <Button variant="soft" disabled={disabled}>
            {WORDS.aSong}
          </Button>
        </FileButton>
      )}
    </Flex>
  );
}
