import { Flex } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import type { Piece } from '@core/piece';
import { ApiError } from '../../platform/api';
import { setView } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { forgetTemplate, openTemplateFile, templateFile } from './kept-templates';
import { WORDS } from './words';

const tell = (error: unknown): void =>
  setView({ notice: error instanceof ApiError ? error.message : WORDS.couldNotBeReached });

/** Keeps the template of a file. */
export function useOpenFile(): (file: File) => void {
  const client = useQueryClient();
  return (file) =>
    void openTemplateFile(file).then((all) => {
      client.setQueryData(['kept-templates'], all);
      setView({ notice: WORDS.isOpened(all[0]?.name ?? file.name) });
    }, tell);
}

/** What can be done with a template that a person keeps. */
export function KeptRow({ template, onGone }: { template: Piece; onGone: () => void }) {
  const client = useQueryClient();
  return (
    <Flex gap="6px" wrap="wrap" alignItems="center">
      <span className="muted">{WORDS.own}</span>
      <Button variant="quiet" asChild aria-label={WORDS.saveFile(template.name)}>
        <a href={templateFile(template.id)} download>
          {WORDS.saveFile(template.name)}
        </a>
      </Button>
      <Button
        variant="quiet"
        onClick={() =>
          void forgetTemplate(template.id).then((all) => {
            onGone();
            client.setQueryData(['kept-templates'], all);
          }, tell)
        }
      >
        {WORDS.forget(template.name)}
      </Button>
    </Flex>
  );
}
