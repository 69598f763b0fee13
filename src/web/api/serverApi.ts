import { createApi } from '@reduxjs/toolkit/query/react';
import { askServer } from './ask';

/** The server as the store knows it; each noun adds its endpoints. */
export const serverApi = createApi({
  reducerPath: 'server',
  baseQuery: askServer,
  tagTypes: ['Book', 'Views', 'Versions', 'Settings', 'Pegs', 'Sets', 'Log', 'Practice', 'Copies', 'Own'],
  endpoints: () => ({}),
});
