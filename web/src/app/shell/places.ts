/** The places in working order; a digit goes to each. */
export const PLACES = [
  { path: '/today', name: 'Today' },
  { path: '/stores', name: 'Stores' },
  { path: '/recipes', name: 'Recipes' },
  { path: '/colourways', name: 'Colourways' },
  { path: '/lots', name: 'Lots' },
  { path: '/bench', name: 'Bench' },
  { path: '/judge', name: 'Judge' },
  { path: '/plan', name: 'Plan' },
  { path: '/studio', name: 'Studio' },
] as const;
