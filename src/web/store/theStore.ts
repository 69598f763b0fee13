import { createStore } from './store';

/** The one store of the page. */
export const store = createStore();
