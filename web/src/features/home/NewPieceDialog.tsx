import { NewPieceForm } from './NewPieceForm';
import type { OnMade } from './NewPieceForm';
import { DialogFrame } from '../../ui/DialogFrame';
import { WORDS } from './words';

/** The form for a new piece, over the home. */
export default function NewPieceDialog({ onMade, onClose }: { onMade: OnMade; onClose: () => void }) {
  return (
    <DialogFrame label={WORDS.newPiece} maxW="560px" padding="6" onClose={onClose}>
      <NewPieceForm onMade={onMade} onCancel={onClose} />
    </DialogFrame>
  );
}
