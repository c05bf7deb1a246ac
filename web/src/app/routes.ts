import type { Routes } from '@angular/router';
import { comeIn } from './shell/come-in';

/** Places in working order; each is loaded when it is first gone to. */
export const routes: Routes = [
  { path: 'door', title: 'Come in', loadComponent: () => import('./features/door/door').then((m) => m.DoorPage) },
  {
    path: '',
    canActivate: [comeIn],
    loadComponent: () => import('./shell/shell').then((m) => m.Shell),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'today' },
      { path: 'today', title: 'Today', loadComponent: () => import('./features/today/today').then((m) => m.TodayPage) },
      { path: 'stores', title: 'Stores', loadComponent: () => import('./features/stores/shelf').then((m) => m.ShelfPage) },
      { path: 'stores/delivery', title: 'Book in a delivery', loadComponent: () => import('./features/stores/delivery').then((m) => m.DeliveryPage) },
      { path: 'stores/material', title: 'A new material', loadComponent: () => import('./features/stores/new-material').then((m) => m.NewMaterialPage) },
      { path: 'stores/:id', title: 'Jar', loadComponent: () => import('./features/stores/jar').then((m) => m.JarPage) },
      { path: 'recipes', title: 'Recipes', loadComponent: () => import('./features/recipes/recipes').then((m) => m.RecipesPage) },
      { path: 'recipes/write', title: 'Write a recipe', loadComponent: () => import('./features/recipes/write-recipe').then((m) => m.WriteRecipePage) },
      { path: 'recipes/:id', title: 'Recipe', loadComponent: () => import('./features/recipes/recipe').then((m) => m.RecipePage) },
      { path: 'colourways', title: 'Colourways', loadComponent: () => import('./features/colourways/colourways').then((m) => m.ColourwaysPage) },
      { path: 'colourways/new', title: 'A new colourway', loadComponent: () => import('./features/colourways/new-colourway').then((m) => m.NewColourwayPage) },
      { path: 'colourways/:id', title: 'Colourway', loadComponent: () => import('./features/colourways/colourway').then((m) => m.ColourwayPage) },
      { path: 'lots', title: 'Lots', loadComponent: () => import('./features/lots/lots').then((m) => m.LotsPage) },
      { path: 'lots/new', title: 'A new lot', loadComponent: () => import('./features/lots/new-lot').then((m) => m.NewLotPage) },
      { path: 'lots/:id', title: 'Lot', loadComponent: () => import('./features/lots/lot').then((m) => m.LotPage) },
      { path: 'bench', title: 'Bench', loadComponent: () => import('./features/bench/bench-lots').then((m) => m.BenchLotsPage) },
      { path: 'bench/:id', title: 'At the bench', loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage) },
      { path: 'judge', title: 'Judge', loadComponent: () => import('./features/judge/judge-lots').then((m) => m.JudgeLotsPage) },
      { path: 'judge/:id', title: 'Judge a lot', loadComponent: () => import('./features/judge/judge').then((m) => m.JudgePage) },
      { path: 'plan', title: 'Plan', loadComponent: () => import('./features/plan/plan').then((m) => m.PlanPage) },
      { path: 'studio', title: 'Studio', loadComponent: () => import('./features/studio/studio').then((m) => m.StudioPage) },
      { path: '**', title: 'Nothing here', loadComponent: () => import('./shell/nowhere').then((m) => m.NowherePage) },
    ],
  },
];
