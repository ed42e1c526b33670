import { useEffect, useState } from 'react';
import { checkReading } from '@core/checks';
import type { ReadingFinding } from '@core/checks';
import { familyLabel } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { createLayoutCache } from '@core/text';
import { loadedFonts } from '../../platform/browser-host';
import { playhead } from '../../platform/clock';
import { edit, selectLayers, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { scanContrast } from './contrast-scan';
import type { ContrastFinding } from './contrast-scan';
import { REMEDIES } from './remedies';

const nameOf = (piece: Piece, id: string) => piece.layers.find((l) => l.id === id)?.name ?? 'a layer';

/** Can it be read? Time, place, faces, and how the letters stand out from what is behind them. */
export function ReadingCheck() {
  const piece = usePiece();
  const times = useTimes();
  const [findings, setFindings] = useState<readonly ReadingFinding[]>([]);
  useEffect(() => {
    let isCurrent = true;
    void loadedFonts(piece).then((fonts) => {
      if (isCurrent) setFindings(checkReading(piece, times, createLayoutCache(fonts)));
    });
    return () => {
      isCurrent = false;
    };
  }, [piece, times]);
  const words = (f: ReadingFinding): string => {
    switch (f.code) {
      case 'TOO_SHORT':
        return `${nameOf(piece, f.layerId)} stands ${f.has.toFixed(1)} s and takes ${f.needs.toFixed(1)} s to read.`;
      case 'OUTSIDE':
        return `${nameOf(piece, f.layerId)} is ${f.isCut ? 'cut off' : 'outside the safe area'} in ${piece.formats.find((x) => x.id === f.formatId)?.name ?? f.formatId}.`;
      case 'MANY_FAMILIES':
        return `${f.families.length} families of type: ${f.families.map(familyLabel).join(', ')}.`;
    }
  };
  const lookAt = (f: ReadingFinding) => {
    if (f.code === 'MANY_FAMILIES') return;
    selectLayers([f.layerId]);
    if (f.code === 'OUTSIDE') {
      setView({ formatId: f.formatId });
      playhead.set(f.at);
    }
  };
  /** Ends the layer as late as reading takes, not past the piece. */
  const lengthen = (f: Extract<ReadingFinding, { code: 'TOO_SHORT' }>) => {
    const layer = piece.layers.find((l) => l.id === f.layerId);
    if (layer)
      edit([
        {
          type: 'layer.setSpan',
          id: layer.id,
          end: { kind: 'free', seconds: Math.min(times.end, times.timeOf(layer.start) + f.needs) },
        },
      ]);
  };
  return (
    <section aria-label="Reading check">
      <h2 className="title">Can it be read?</h2>
      {findings.length === 0 && (
        <p style={{ color: 'var(--moss)' }}>Every text stands long enough and within the safe area.</p>
      )}
      {findings.map((f, i) => (
        <div key={i} className="list-row">
          <button
            className="quiet"
            style={{ flex: 1, padding: 0, whiteSpace: 'normal', textAlign: 'left', color: 'var(--text)' }}
            onClick={() => lookAt(f)}
          >
            {words(f)}
          </button>
          {f.code === 'TOO_SHORT' && (
            <button
              className="soft"
              aria-label={`Stand longer: ${nameOf(piece, f.layerId)}`}
              onClick={() => lengthen(f)}
            >
              Longer
            </button>
          )}
        </div>
      ))}
      <ContrastCheck />
    </section>
  );
}

function ContrastCheck() {
  const piece = usePiece();
  const analysis = useAnalysis();
  const formatId = useDesk((s) => s.formatId);
  const [result, setResult] = useState<{ piece: Piece; findings: readonly ContrastFinding[] } | null>(null);
  const [progress, setProgress] = useState<{ share: number; stop: AbortController } | null>(null);
  const look = () => {
    const stop = new AbortController();
    setProgress({ share: 0, stop });
    scanContrast(piece, analysis, formatId, (share) => setProgress({ share, stop }), stop.signal)
      .then((findings) => {
        if (!stop.signal.aborted) setResult({ piece, findings });
      })
      .catch((error: unknown) =>
        setView({
          notice: `The contrast could not be looked at: ${error instanceof Error ? error.message : String(error)}`,
        }),
      )
      .finally(() => setProgress(null));
  };
  const isOld = result !== null && result.piece !== piece;
  return (
    <div>
      <div style={{ display: 'flex', alignItems: 'center', gap: 8, margin: '8px 0' }}>
        <button className="soft" disabled={progress !== null} onClick={look}>
          Look at the contrast
        </button>
        {progress && (
          <>
            <span className="meter" style={{ flex: 1 }}>
              <i style={{ width: `${progress.share * 100}%` }} />
            </span>
            <button className="quiet" onClick={() => progress.stop.abort()}>
              Stop
            </button>
          </>
        )}
      </div>
      {result && result.findings.length === 0 && (
        <p style={{ color: isOld ? 'var(--muted)' : 'var(--moss)' }}>
          The letters stand out from what is behind them{isOld ? ', before the last change' : ''}.
        </p>
      )}
      {result?.findings.map((f) => {
        const layer = piece.layers.find((l): l is TextLayer => l.id === f.layerId && l.kind === 'text');
        if (!layer) return null;
        return (
          <div key={f.layerId} className="list-row" style={{ display: 'block' }} data-contrast={f.layerId}>
            <button
              className="quiet"
              style={{ padding: 0, whiteSpace: 'normal', textAlign: 'left', color: 'var(--text)' }}
              onClick={() => {
                selectLayers([f.layerId]);
                playhead.set(f.at);
              }}
            >
              <span>
                {layer.name} <span style={{ color: 'var(--ember)' }}>{f.ratio.toFixed(1)} : 1</span>{' '}
                <span className="muted">where {f.wanted} : 1 is wanted</span>
              </span>
            </button>
            <img
              src={f.picture}
              alt={`${layer.name} where it is faintest`}
              style={{ width: '100%', borderRadius: 6, margin: '4px 0' }}
            />
            <div style={{ display: 'flex', gap: 4, flexWrap: 'wrap' }}>
              {Object.entries(REMEDIES).map(([id, remedy]) => (
                <button
                  key={id}
                  className="soft"
                  style={{ padding: '3px 8px', fontSize: 12.5 }}
                  onClick={() => remedy.apply(layer, f, piece)}
                >
                  {remedy.label}
                </button>
              ))}
            </div>
          </div>
        );
      })}
    </div>
  );
}
