import { Heading, Text } from '@chakra-ui/react';
import { Link, isRouteErrorResponse, useRouteError } from 'react-router';
import { WORDS } from './words';

/** An address that leads nowhere, or a page that failed: both lead home. */
export function ProblemPage() {
  const error = useRouteError();
  // Shown for an address that no route has, there is no error.
  const isUnknown = !error || (isRouteErrorResponse(error) && error.status === 404);
  return (
    <main className="home">
      <Heading as="h1" fontSize="20px" mb="2">
        {isUnknown ? WORDS.thereIsNoSuch : WORDS.thisPageFailed}
      </Heading>
      <Text className="muted" mb="5">
        {isUnknown ? WORDS.theAddressMayHave : WORDS.yourPiecesAreSafe}
      </Text>
      <Link to="/">{WORDS.toAllPieces}</Link>
    </main>
  );
}
