import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import type { MediaKindId } from '@core/piece';
import { MEDIA_ON_DESK } from '../media/media-kinds';
import { importFile } from './import-file';
import type { ImportProgress } from './import-file';

/** A place to drop or pick a file, with progress and cancel. */
export function FileDrop({ wanted, label, children }: { wanted: MediaKindId; label: string; children: ReactNode }) {
  const [progress, setProgress] = useState<ImportProgress | null>(null);
  const [isOver, setOver] = useState(false);
  const abort = useRef<AbortController | null>(null);
  const take = (file: File | undefined) => {
    if (!file) return;
    abort.current = new AbortController();
    void importFile(file, wanted, setProgress, abort.current.signal);
  };
  if (progress) {
    return (
      <div className="drop" role="status">
        <div style={{ color: 'var(--text)', overflow: 'hidden', textOverflow: 'ellipsis' }}>{progress.name}</div>
        <div style={{ margin: '4px 0 8px' }}>
          {progress.stage} {Math.round(progress.share * 100)} %
        </div>
        <div
          className="meter"
          role="progressbar"
          aria-label={progress.stage}
          aria-valuenow={Math.round(progress.share * 100)}
        >
          <i style={{ width: `${progress.share * 100}%` }} />
        </div>
        <button className="quiet" style={{ marginTop: 8 }} onClick={() => abort.current?.abort()}>
          Cancel
        </button>
      </div>
    );
  }
  return (
    <label
      className={`drop${isOver ? ' over' : ''}`}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        e.stopPropagation();
        setOver(false);
        take(e.dataTransfer.files[0]);
      }}
    >
      <input
        type="file"
        accept={MEDIA_ON_DESK[wanted].accept}
        aria-label={label}
        style={{ position: 'absolute', opacity: 0, width: 1, height: 1 }}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          take(file);
        }}
      />
      {children}
    </label>
  );
}
