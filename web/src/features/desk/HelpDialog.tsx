/// <reference types="vite/client" />
import { CloseButton, Dialog, Portal } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import Markdown from 'react-markdown';
import { setView, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { HELP_PAGES, HELP_PAGE_IDS } from './help-pages';
import type { HelpPageId } from './help-pages';
import { WORDS } from './words';

/** The pages of docs/guide, each in a file of its own that is fetched when it is read. */
const FILES = import.meta.glob<string>('../../../../docs/guide/*.md', { query: '?raw', import: 'default' });

const pageNamed = (name: string | null): HelpPageId | null => HELP_PAGE_IDS.find((id) => id === name) ?? null;

function Page({ id }: { id: HelpPageId }) {
  const { data, isError } = useQuery({
    queryKey: ['help', id],
    queryFn: () => FILES[`../../../../docs/guide/${id}.md`]!(), // one file for each page
    staleTime: Infinity,
  });
  if (isError) return <p role="alert">{WORDS.helpFailed}</p>;
  return (
    <Markdown
      components={{
        a: ({ href = '', children }) => {
          const page = pageNamed(href.replace(/\.md$/, ''));
          if (!page) return <span>{children}</span>;
          return (
            <Button variant="quiet" padding="0" onClick={() => setView({ helpPage: page })}>
              {children}
            </Button>
          );
        },
      }}
    >
      {data ?? ''}
    </Markdown>
  );
}

/** The guide: one page for each task, opened at the place that was asked about. */
export function HelpDialog() {
  const page = pageNamed(useDesk((s) => s.helpPage));
  const close = () => setView({ helpPage: null });
  return (
    <Dialog.Root
      open={page !== null}
      onOpenChange={(e) => !e.open && close()}
      lazyMount
      unmountOnExit
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content className="help" aria-label={WORDS.help}>
            <Dialog.Body display="grid" gridTemplateColumns="190px minmax(0, 1fr)" gap="20px">
              <nav aria-label={WORDS.helpPages}>
                {HELP_PAGE_IDS.map((id) => (
                  <Button
                    key={id}
                    variant="quiet"
                    width="100%"
                    justifyContent="flex-start"
                    aria-current={id === page ? 'page' : undefined}
                    onClick={() => setView({ helpPage: id })}
                  >
                    {HELP_PAGES[id]}
                  </Button>
                ))}
              </nav>
              <article tabIndex={0} aria-label={page ? HELP_PAGES[page] : undefined}>
                {page && <Page key={page} id={page} />}
              </article>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton aria-label={WORDS.closeHelp} />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
