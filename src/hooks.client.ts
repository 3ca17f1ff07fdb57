import { seeEarly } from '$ui/shell/early';
import { watchGeneration } from '$ui/shell/generation';
import type { ClientInit } from '@sveltejs/kit';

export const init: ClientInit = () => {
  seeEarly();
  watchGeneration();
};
