import { createContext, useContext } from 'react';
import type { CheckClient } from '../workers/checks/check-client';

/** The worker that the desk's panels ask for fixes and seam reports. */
export const CheckContext = createContext<CheckClient | null>(null);

export const useCheckClient = () => useContext(CheckContext);
