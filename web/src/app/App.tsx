import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { RouterProvider, createBrowserRouter } from 'react-router';
import { DeskPage } from '../features/desk/DeskPage';
import { HomePage } from '../features/home/HomePage';
import { FramePage } from '../features/preview/FramePage';
import { ProblemPage } from './ProblemPage';
import { system } from './theme';

const queries = new QueryClient({ defaultOptions: { queries: { retry: 2, refetchOnWindowFocus: true } } });

const router = createBrowserRouter([
  {
    errorElement: <ProblemPage />,
    children: [
      { path: '/', element: <HomePage /> },
      { path: '/piece/:id', element: <DeskPage /> },
      { path: '/frame/:id', element: <FramePage /> },
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
