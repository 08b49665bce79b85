import { createContext } from 'react';

/** Whether the page stores what is made on it, and so has lists to take from and to keep in. */
export const IsKeptContext = createContext(false);
