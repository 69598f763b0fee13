import { createContext } from 'react';

/** Where a sheet lies: over the page as a window, or beside it in a panel that is there already. */
export const SheetPlace = createContext<'window' | 'panel'>('window');
