import type { Routes } from '@angular/router';
import { signedIn } from './shell/signed-in-guard';

/** Places in working order; each is loaded when it is first gone to. */
export const routes: Routes = [
  {
    path: 'come-in',
    title: 'Come in',
    loadComponent: () => import('./features/auth/sign-in').then((m) => m.SignInPage),
  },
  {
    path: 'wall',
    title: 'Today on a wall',
    canActivate: [signedIn],
    loadComponent: () => import('./features/today/wall').then((m) => m.WallPage),
  },
  {
    path: '',
    canActivate: [signedIn],
    loadComponent: () => import('./shell/shell').then((m) => m.Shell),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'today' },
      { path: 'today', title: 'Today', loadComponent: () => import('./features/today/today').then((m) => m.TodayPage) },
      {
        path: 'stores',
        title: 'Stores',
        loadComponent: () => import('./features/stores/shelf/shelf').then((m) => m.ShelfPage),
      },
      {
        path: 'stores/delivery',
        title: 'Book in a delivery',
        loadComponent: () => import('./features/stores/stock-lot/delivery').then((m) => m.DeliveryPage),
      },
      {
        path: 'stores/ahead',
        title: 'Looking ahead',
        loadComponent: () => import('./features/stores/shelf/forecast').then((m) => m.ForecastPage),
      },
      {
        path: 'stores/count',
        title: 'Count the shelf',
        loadComponent: () => import('./features/stores/count/count').then((m) => m.CountPage),
      },
      {
        path: 'stores/count/:id',
        title: 'Counting',
        loadComponent: () => import('./features/stores/count/stocktake').then((m) => m.StocktakePage),
      },
      {
        path: 'stores/convert',
        title: 'Grind, dry or blend',
        loadComponent: () => import('./features/stores/stock-lot/convert').then((m) => m.ConvertPage),
      },
      {
        path: 'stores/liquor',
        title: 'Store a bath or liquor',
        loadComponent: () => import('./features/stores/stock-lot/keep-liquor').then((m) => m.KeepLiquorPage),
      },
      {
        path: 'stores/files',
        title: 'Files in and out',
        loadComponent: () => import('./features/stores/files/files').then((m) => m.FilesPage),
      },
      {
        path: 'stores/materials',
        title: 'Materials',
        loadComponent: () => import('./features/stores/material/materials').then((m) => m.MaterialsPage),
      },
      {
        path: 'stores/materials/:id',
        title: 'Material',
        loadComponent: () => import('./features/stores/material/material').then((m) => m.MaterialPageView),
      },
      {
        path: 'stores/gathered',
        title: 'Gathered',
        loadComponent: () => import('./features/stores/gathered/gathered').then((m) => m.GatheredPage),
      },
      {
        path: 'stores/worth',
        title: 'What the shelf is worth',
        loadComponent: () => import('./features/stores/shelf/worth').then((m) => m.WorthPage),
      },
      {
        path: 'stores/material',
        title: 'A new material',
        loadComponent: () => import('./features/stores/material/new-material').then((m) => m.NewMaterialPage),
      },
      {
        path: 'stores/:id/dye-in',
        title: 'Dye in it',
        loadComponent: () => import('./features/stores/stock-lot/dye-in-liquor').then((m) => m.DyeInLiquorPage),
      },
      {
        path: 'stores/:id/label',
        title: 'Label',
        loadComponent: () => import('./features/stores/stock-lot/print-label').then((m) => m.PrintLabelPage),
      },
      {
        path: 'stores/:id',
        title: 'Jar',
        loadComponent: () => import('./features/stores/stock-lot/stock-lot').then((m) => m.StockLotPage),
      },
      {
        path: 'recipes',
        title: 'Recipes',
        loadComponent: () => import('./features/recipes/recipes').then((m) => m.RecipesPage),
      },
      {
        path: 'recipes/write',
        title: 'Write a recipe',
        loadComponent: () => import('./features/recipes/write-recipe').then((m) => m.WriteRecipePage),
      },
      {
        path: 'recipes/take-in',
        title: 'Take in a recipe',
        loadComponent: () => import('./features/recipes/take-in-recipe').then((m) => m.TakeInRecipePage),
      },
      {
        path: 'recipes/strips',
        title: 'Strip trials',
        loadComponent: () => import('./features/recipes/strip-trials').then((m) => m.StripTrialsPage),
      },
      {
        path: 'recipes/strips/new',
        title: 'Lay out a strip trial',
        loadComponent: () => import('./features/recipes/new-strip-trial').then((m) => m.NewStripTrialPage),
      },
      {
        path: 'recipes/strips/:id',
        title: 'Strip trial',
        loadComponent: () => import('./features/recipes/strip-trial').then((m) => m.StripTrialPage),
      },
      {
        path: 'recipes/:id/outline',
        title: 'Recipe without its amounts',
        loadComponent: () => import('./features/recipes/recipe-outline').then((m) => m.RecipeOutlinePage),
      },
      {
        path: 'recipes/:id/compare',
        title: 'What changed',
        loadComponent: () => import('./features/recipes/compare-versions').then((m) => m.CompareVersionsPage),
      },
      {
        path: 'recipes/:id/sheet',
        title: 'Recipe sheet',
        loadComponent: () => import('./features/recipes/recipe-sheet').then((m) => m.RecipeSheetPage),
      },
      {
        path: 'recipes/:id/placed',
        title: 'At true scale',
        loadComponent: () => import('./features/recipes/placed-sheet').then((m) => m.PlacedSheetPage),
      },
      {
        path: 'recipes/:id',
        title: 'Recipe',
        loadComponent: () => import('./features/recipes/recipe').then((m) => m.RecipePage),
      },
      {
        path: 'colourways',
        title: 'Colourways',
        loadComponent: () => import('./features/colourways/colourways').then((m) => m.ColourwaysPage),
      },
      {
        path: 'colourways/new',
        title: 'A new colourway',
        loadComponent: () => import('./features/colourways/new-colourway').then((m) => m.NewColourwayPage),
      },
      {
        path: 'colourways/:id/graded',
        title: 'A graded family',
        loadComponent: () => import('./features/colourways/graded').then((m) => m.GradedPage),
      },
      {
        path: 'colourways/:id',
        title: 'Colourway',
        loadComponent: () => import('./features/colourways/colourway').then((m) => m.ColourwayPage),
      },
      { path: 'lots', title: 'Lots', loadComponent: () => import('./features/lots/lots').then((m) => m.LotsPage) },
      {
        path: 'lots/first',
        title: 'A first lot',
        loadComponent: () => import('./features/lots/first-lot').then((m) => m.FirstLotPage),
      },
      {
        path: 'lots/new',
        title: 'A new lot',
        loadComponent: () => import('./features/lots/new-lot').then((m) => m.NewLotPage),
      },
      {
        path: 'lots/:id/beside',
        title: 'Side by side',
        loadComponent: () => import('./features/lots/beside').then((m) => m.BesidePage),
      },
      { path: 'lots/:id', title: 'Lot', loadComponent: () => import('./features/lots/lot').then((m) => m.LotPage) },
      { path: 'bench', title: 'Bench', loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage) },
      {
        path: 'bench/instruments',
        title: 'Instruments',
        loadComponent: () => import('./features/bench/instruments-page').then((m) => m.InstrumentsPage),
      },
      {
        path: 'scan',
        title: 'Scan a tag',
        loadComponent: () => import('./features/scan/scan').then((m) => m.ScanPage),
      },
      {
        path: 'bench/tags',
        title: 'Tags',
        loadComponent: () => import('./features/bench/tags-page').then((m) => m.TagsPage),
      },
      {
        path: 'bench/card/:id',
        title: 'Bench card',
        loadComponent: () => import('./features/bench/card-page').then((m) => m.CardPage),
      },
      {
        path: 'bench/rehearsal/:rehearsal',
        title: 'Rehearsal',
        loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage),
      },
      {
        path: 'bench/:id',
        title: 'At the bench',
        loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage),
      },
      {
        path: 'judge',
        title: 'Judge',
        loadComponent: () => import('./features/judge/judge-lots').then((m) => m.JudgeLotsPage),
      },
      {
        path: 'judge/book',
        title: 'Swatch book',
        loadComponent: () => import('./features/judge/swatch-book').then((m) => m.SwatchBookPage),
      },
      {
        path: 'judge/palette',
        title: 'Palette',
        loadComponent: () => import('./features/judge/palette').then((m) => m.PalettePage),
      },
      {
        path: 'judge/fastness',
        title: 'Fastness',
        loadComponent: () => import('./features/judge/fastness').then((m) => m.FastnessPage),
      },
      {
        path: 'judge/reach',
        title: 'What reaches a shade',
        loadComponent: () => import('./features/judge/reach').then((m) => m.ReachPage),
      },
      {
        path: 'judge/foretold',
        title: 'Foretold',
        loadComponent: () => import('./features/judge/foretold').then((m) => m.ForetoldPage),
      },
      {
        path: 'judge/readers',
        title: 'Readers and files',
        loadComponent: () => import('./features/judge/readers').then((m) => m.ReadersPage),
      },
      {
        path: 'judge/:id',
        title: 'Judge a lot',
        loadComponent: () => import('./features/judge/judge').then((m) => m.JudgePage),
      },
      { path: 'plan', title: 'Plan', loadComponent: () => import('./features/plan/plan').then((m) => m.PlanPage) },
      {
        path: 'studio/practice',
        title: 'House practice',
        loadComponent: () => import('./features/studio/practice').then((m) => m.PracticePage),
      },
      {
        path: 'studio/deeds',
        title: 'Who did what',
        loadComponent: () => import('./features/studio/deeds').then((m) => m.DeedsPage),
      },
      {
        path: 'studio',
        title: 'Studio',
        loadComponent: () => import('./features/studio/studio').then((m) => m.StudioPage),
      },
      {
        path: '**',
        title: 'Nothing here',
        loadComponent: () => import('./shell/not-found').then((m) => m.NotFoundPage),
      },
    ],
  },
];
