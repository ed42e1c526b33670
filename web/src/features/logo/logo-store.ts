import { create } from 'zustand';

/** A file that came in with something left out. */
export interface LogoReport {
  readonly name: string;
  readonly groupId: string;
  readonly left: readonly string[];
  /** The file itself, for as long as it is asked about; it is never stored. */
  readonly text: string;
}

export const useLogoReport = create<{ readonly report: LogoReport | null }>(() => ({ report: null }));
export const setLogoReport = (report: LogoReport | null): void => useLogoReport.setState({ report });
