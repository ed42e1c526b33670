import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { RouterProvider, createBrowserRouter } from 'react-router';
import { HomePage } from '../features/home/HomePage';
import { ProblemPage } from './ProblemPage';
import { system } from './theme';
import { WORDS } from './words';

const queries = new QueryClient({ defaultOptions: { queries: { retry: 2, refetchOnWindowFocus: true } } });

const router = createBrowserRouter([
  {
    errorElement: <ProblemPage />,
    hydrateFallbackElement: <p className="wait muted">{WORDS.opening}</p>,
    children: [
      { path: '/', element: <HomePage /> },
      { path: '/piece/:id', lazy: async () => ({ Component: (await import('../features/desk/DeskPage')).DeskPage }) },
      {
        path: '/renders',
        lazy: async () => ({ Component: (await import('../features/send/RendersPage')).RendersPage }),
      },
      {
        path: '/frame/:id',
        lazy: async () => ({ Component: (await import('../features/preview/FramePage')).FramePage }),
      },
      { path: '*', element: <ProblemPage /> },
    ],
  },
]);

export function App() {
  return (
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </ChakraProvider>
  );
}
