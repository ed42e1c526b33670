import { FileUpload } from '@chakra-ui/react';
import { useId } from 'react';
import type { ReactNode } from 'react';

interface Props {
  readonly label: string;
  /** What the file chooser offers; whoever takes the files looks at what they are. */
  readonly accept: string;
  readonly many?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  readonly children: ReactNode;
}

const NOTHING_KEPT: File[] = [];

/** Files by a chooser, or dropped on it. */
function Root({ label, accept, many = false, onFiles, children }: Props) {
  return (
    <FileUpload.Root
      maxFiles={many ? 100 : 1}
      acceptedFiles={NOTHING_KEPT}
      onFileAccept={({ files }) => files.length > 0 && onFiles(files)}
      unstyled
    >
      <FileUpload.HiddenInput aria-label={label} accept={accept} />
      {children}
    </FileUpload.Root>
  );
}

/** A place to drop files on, which is also a button. */
export function FileDropPlace({ className, children, ...root }: Props & { readonly className?: string }) {
  const words = useId();
  return (
    <Root {...root}>
      {/* Named by its words, which stand before the library's name for it. */}
      <FileUpload.Dropzone unstyled className={className} aria-labelledby={words}>
        <span id={words}>{children}</span>
      </FileUpload.Dropzone>
    </Root>
  );
}

/** A button that asks for files. */
export function FileButton({ children, ...root }: Props) {
  return (
    <Root {...root}>
      <FileUpload.Trigger asChild>{children}</FileUpload.Trigger>
    </Root>
  );
}
