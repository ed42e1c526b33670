import { setView } from '../../store/desk-store';
import { useSelectedLayer } from '../../store/selectors';
import KeepTemplate from './KeepTemplate';
import TemplateGallery from './TemplateGallery';

const close = (): void => setView({ templateDialog: null });

/** The dialogs of templates; of a selected group, or of the whole piece, one is made. */
export default function TemplateDialogs({ which }: { which: 'gallery' | 'keep' }) {
  const selected = useSelectedLayer();
  return which === 'gallery' ? (
    <TemplateGallery onClose={close} />
  ) : (
    <KeepTemplate groupId={selected?.kind === 'group' ? selected.id : null} onClose={close} />
  );
}
