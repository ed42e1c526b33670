import { Heading, Text } from '@chakra-ui/react';
import { Link, isRouteErrorResponse, useRouteError } from 'react-router';

/** An address that leads nowhere, or a page that failed: both lead home. */
export function ProblemPage() {
  const error = useRouteError();
  // Shown for an address that no route has, there is no error.
  const isUnknown = !error || (isRouteErrorResponse(error) && error.status === 404);
  return (
    <main className="home">
      <Heading as="h1" fontSize="20px" mb="2">
        {isUnknown ? 'There is no such page' : 'This page failed'}
      </Heading>
      <Text className="muted" mb="5">
        {isUnknown
          ? 'The address may have been mistyped, or the piece deleted.'
          : 'Your pieces are safe. Load the page again, or go back to all pieces.'}
      </Text>
      <Link to="/">To all pieces</Link>
    </main>
  );
}
