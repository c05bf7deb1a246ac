/** The places in working order; a digit goes to each. */
export const PLACES = [
  { path: '/today', name: $localize`Today` },
  { path: '/stores', name: $localize`Stores` },
  { path: '/recipes', name: $localize`Recipes` },
  { path: '/colourways', name: $localize`Colourways` },
  { path: '/orders', name: $localize`Orders` },
  { path: '/lots', name: $localize`Lots` },
  { path: '/bench', name: $localize`Bench` },
  { path: '/judge', name: $localize`Judge` },
  { path: '/plan', name: $localize`Plan` },
  { path: '/studio', name: $localize`Studio` },
] as const;
