import type { Routes } from '@angular/router';
import { signedIn } from './shell/signed-in-guard';

/** Places in working order; each is loaded when it is first gone to. */
export const routes: Routes = [
  {
    path: 'come-in',
    title: $localize`Come in`,
    loadComponent: () => import('./features/auth/sign-in').then((m) => m.SignInPage),
  },
  {
    path: 'wall',
    title: $localize`Today on a wall`,
    canActivate: [signedIn],
    loadComponent: () => import('./features/today/wall').then((m) => m.WallPage),
  },
  {
    path: '',
    canActivate: [signedIn],
    loadComponent: () => import('./shell/shell').then((m) => m.Shell),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'today' },
      {
        path: 'today',
        title: $localize`Today`,
        loadComponent: () => import('./features/today/today').then((m) => m.TodayPage),
      },
      {
        path: 'stores',
        title: $localize`Stores`,
        loadComponent: () => import('./features/stores/shelf/shelf').then((m) => m.ShelfPage),
      },
      {
        path: 'stores/delivery',
        title: $localize`Book in a delivery`,
        loadComponent: () => import('./features/stores/stock-lot/delivery').then((m) => m.DeliveryPage),
      },
      {
        path: 'stores/ahead',
        title: $localize`Looking ahead`,
        loadComponent: () => import('./features/stores/shelf/forecast').then((m) => m.ForecastPage),
      },
      {
        path: 'stores/count',
        title: $localize`Count the shelf`,
        loadComponent: () => import('./features/stores/count/count').then((m) => m.CountPage),
      },
      {
        path: 'stores/count/:id',
        title: $localize`Counting`,
        loadComponent: () => import('./features/stores/count/stocktake').then((m) => m.StocktakePage),
      },
      {
        path: 'stores/convert',
        title: $localize`Grind, dry or blend`,
        loadComponent: () => import('./features/stores/stock-lot/convert').then((m) => m.ConvertPage),
      },
      {
        path: 'stores/liquor',
        title: $localize`Store a bath or liquor`,
        loadComponent: () => import('./features/stores/stock-lot/keep-liquor').then((m) => m.KeepLiquorPage),
      },
      {
        path: 'stores/files',
        title: $localize`Files in and out`,
        loadComponent: () => import('./features/stores/files/files').then((m) => m.FilesPage),
      },
      {
        path: 'stores/materials',
        title: $localize`Materials`,
        loadComponent: () => import('./features/stores/material/materials').then((m) => m.MaterialsPage),
      },
      {
        path: 'stores/materials/:id',
        title: $localize`Material`,
        loadComponent: () => import('./features/stores/material/material').then((m) => m.MaterialPageView),
      },
      {
        path: 'stores/gathered',
        title: $localize`Gathered`,
        loadComponent: () => import('./features/stores/gathered/gathered').then((m) => m.GatheredPage),
      },
      {
        path: 'stores/worth',
        title: $localize`What the shelf is worth`,
        loadComponent: () => import('./features/stores/shelf/worth').then((m) => m.WorthPage),
      },
      {
        path: 'stores/material',
        title: $localize`A new material`,
        loadComponent: () => import('./features/stores/material/new-material').then((m) => m.NewMaterialPage),
      },
      {
        path: 'stores/:id/dye-in',
        title: $localize`Dye in it`,
        loadComponent: () => import('./features/stores/stock-lot/dye-in-liquor').then((m) => m.DyeInLiquorPage),
      },
      {
        path: 'stores/:id/label',
        title: $localize`Label`,
        loadComponent: () => import('./features/stores/stock-lot/print-label').then((m) => m.PrintLabelPage),
      },
      {
        path: 'stores/:id',
        title: $localize`Jar`,
        loadComponent: () => import('./features/stores/stock-lot/stock-lot').then((m) => m.StockLotPage),
      },
      {
        path: 'recipes',
        title: $localize`Recipes`,
        loadComponent: () => import('./features/recipes/recipes').then((m) => m.RecipesPage),
      },
      {
        path: 'recipes/write',
        title: $localize`Write a recipe`,
        loadComponent: () => import('./features/recipes/write-recipe').then((m) => m.WriteRecipePage),
      },
      {
        path: 'recipes/take-in',
        title: $localize`Take in a recipe`,
        loadComponent: () => import('./features/recipes/take-in-recipe').then((m) => m.TakeInRecipePage),
      },
      {
        path: 'recipes/strips',
        title: $localize`Strip trials`,
        loadComponent: () => import('./features/recipes/strip-trials').then((m) => m.StripTrialsPage),
      },
      {
        path: 'recipes/strips/new',
        title: $localize`Lay out a strip trial`,
        loadComponent: () => import('./features/recipes/new-strip-trial').then((m) => m.NewStripTrialPage),
      },
      {
        path: 'recipes/strips/:id',
        title: $localize`Strip trial`,
        loadComponent: () => import('./features/recipes/strip-trial').then((m) => m.StripTrialPage),
      },
      {
        path: 'recipes/:id/outline',
        title: $localize`Recipe without its amounts`,
        loadComponent: () => import('./features/recipes/recipe-outline').then((m) => m.RecipeOutlinePage),
      },
      {
        path: 'recipes/:id/compare',
        title: $localize`What changed`,
        loadComponent: () => import('./features/recipes/compare-versions').then((m) => m.CompareVersionsPage),
      },
      {
        path: 'recipes/:id/sheet',
        title: $localize`Recipe sheet`,
        loadComponent: () => import('./features/recipes/recipe-sheet').then((m) => m.RecipeSheetPage),
      },
      {
        path: 'recipes/:id/placed',
        title: $localize`At true scale`,
        loadComponent: () => import('./features/recipes/placed-sheet').then((m) => m.PlacedSheetPage),
      },
      {
        path: 'recipes/:id',
        title: $localize`Recipe`,
        loadComponent: () => import('./features/recipes/recipe').then((m) => m.RecipePage),
      },
      {
        path: 'colourways',
        title: $localize`Colourways`,
        loadComponent: () => import('./features/colourways/colourways').then((m) => m.ColourwaysPage),
      },
      {
        path: 'colourways/new',
        title: $localize`A new colourway`,
        loadComponent: () => import('./features/colourways/new-colourway').then((m) => m.NewColourwayPage),
      },
      {
        path: 'colourways/:id/graded',
        title: $localize`A graded family`,
        loadComponent: () => import('./features/colourways/graded').then((m) => m.GradedPage),
      },
      {
        path: 'colourways/:id',
        title: $localize`Colourway`,
        loadComponent: () => import('./features/colourways/colourway').then((m) => m.ColourwayPage),
      },
      {
        path: 'orders',
        title: $localize`Orders`,
        loadComponent: () => import('./features/orders/orders').then((m) => m.OrdersPage),
      },
      {
        path: 'orders/new',
        title: $localize`Take an order`,
        loadComponent: () => import('./features/orders/order-form').then((m) => m.OrderFormPage),
      },
      {
        path: 'orders/goods',
        title: $localize`Finished pieces`,
        loadComponent: () => import('./features/orders/goods').then((m) => m.GoodsPage),
      },
      {
        path: 'orders/customers',
        title: $localize`Customers`,
        loadComponent: () => import('./features/orders/customers').then((m) => m.CustomersPage),
      },
      {
        path: 'orders/customers/:id',
        title: $localize`Customer`,
        loadComponent: () => import('./features/orders/customer').then((m) => m.CustomerPage),
      },
      {
        path: 'orders/:id',
        title: $localize`Order`,
        loadComponent: () => import('./features/orders/order').then((m) => m.OrderPage),
      },
      {
        path: 'orders/:id/edit',
        title: $localize`Change an order`,
        loadComponent: () => import('./features/orders/order-form').then((m) => m.OrderFormPage),
      },
      {
        path: 'lots',
        title: $localize`Lots`,
        loadComponent: () => import('./features/lots/lots').then((m) => m.LotsPage),
      },
      {
        path: 'lots/first',
        title: $localize`A first lot`,
        loadComponent: () => import('./features/lots/first-lot').then((m) => m.FirstLotPage),
      },
      {
        path: 'lots/new',
        title: $localize`A new lot`,
        loadComponent: () => import('./features/lots/new-lot').then((m) => m.NewLotPage),
      },
      {
        path: 'lots/:id/beside',
        title: $localize`Side by side`,
        loadComponent: () => import('./features/lots/beside').then((m) => m.BesidePage),
      },
      {
        path: 'lots/:id',
        title: $localize`Lot`,
        loadComponent: () => import('./features/lots/lot').then((m) => m.LotPage),
      },
      {
        path: 'bench',
        title: $localize`Bench`,
        loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage),
      },
      {
        path: 'bench/instruments',
        title: $localize`Instruments`,
        loadComponent: () => import('./features/bench/instruments-page').then((m) => m.InstrumentsPage),
      },
      {
        path: 'scan',
        title: $localize`Scan a tag`,
        loadComponent: () => import('./features/scan/scan').then((m) => m.ScanPage),
      },
      {
        path: 'bench/tags',
        title: $localize`Tags`,
        loadComponent: () => import('./features/bench/tags-page').then((m) => m.TagsPage),
      },
      {
        path: 'bench/card/:id',
        title: $localize`Bench card`,
        loadComponent: () => import('./features/bench/card-page').then((m) => m.CardPage),
      },
      {
        path: 'bench/rehearsal/:rehearsal',
        title: $localize`Rehearsal`,
        loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage),
      },
      {
        path: 'bench/:id',
        title: $localize`At the bench`,
        loadComponent: () => import('./features/bench/bench').then((m) => m.BenchPage),
      },
      {
        path: 'judge',
        title: $localize`Judge`,
        loadComponent: () => import('./features/judge/judge-lots').then((m) => m.JudgeLotsPage),
      },
      {
        path: 'judge/book',
        title: $localize`Swatch book`,
        loadComponent: () => import('./features/judge/swatch-book').then((m) => m.SwatchBookPage),
      },
      {
        path: 'judge/palette',
        title: $localize`Palette`,
        loadComponent: () => import('./features/judge/palette').then((m) => m.PalettePage),
      },
      {
        path: 'judge/fastness',
        title: $localize`Fastness`,
        loadComponent: () => import('./features/judge/fastness').then((m) => m.FastnessPage),
      },
      {
        path: 'judge/reach',
        title: $localize`What reaches a shade`,
        loadComponent: () => import('./features/judge/reach').then((m) => m.ReachPage),
      },
      {
        path: 'judge/foretold',
        title: $localize`Foretold`,
        loadComponent: () => import('./features/judge/foretold').then((m) => m.ForetoldPage),
      },
      {
        path: 'judge/readers',
        title: $localize`Readers and files`,
        loadComponent: () => import('./features/judge/readers').then((m) => m.ReadersPage),
      },
      {
        path: 'judge/:id',
        title: $localize`Judge a lot`,
        loadComponent: () => import('./features/judge/judge').then((m) => m.JudgePage),
      },
      {
        path: 'plan/times',
        title: $localize`Hours and equipment`,
        loadComponent: () => import('./features/plan/times').then((m) => m.PlanTimesPage),
      },
      {
        path: 'plan',
        title: $localize`Plan`,
        loadComponent: () => import('./features/plan/plan').then((m) => m.PlanPage),
      },
      {
        path: 'studio/practice',
        title: $localize`House practice`,
        loadComponent: () => import('./features/studio/practice').then((m) => m.PracticePage),
      },
      {
        path: 'studio/deeds',
        title: $localize`Who did what`,
        loadComponent: () => import('./features/studio/deeds').then((m) => m.DeedsPage),
      },
      {
        path: 'studio',
        title: $localize`Studio`,
        loadComponent: () => import('./features/studio/studio').then((m) => m.StudioPage),
      },
      {
        path: '**',
        title: $localize`Nothing here`,
        loadComponent: () => import('./shell/not-found').then((m) => m.NotFoundPage),
      },
    ],
  },
];
