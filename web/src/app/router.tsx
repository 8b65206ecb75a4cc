import type { ComponentType } from "react";
import { createBrowserRouter } from "react-router";
import { Frame } from "./Frame";
import { NotFound } from "./NotFound";
import { Opening } from "./Opening";
import { PageFailure } from "./PageFailure";

// Each page by its address; its code is fetched when it is first gone to, or before, while nothing else is done.
const pages: Record<string, () => Promise<ComponentType>> = {
  "": () => import("../features/today/TodayPage").then((it) => it.TodayPage),
  bench: () => import("../features/bench/BenchStart").then((it) => it.BenchStart),
  "bench/:walkId": () => import("../plant-in-hand/key/BenchWalk").then((it) => it.BenchWalk),
  "bench/:walkId/sift": () => import("../plant-in-hand/sift/SiftPage").then((it) => it.SiftPage),
  "bench/:walkId/contrast": () => import("../plant-in-hand/contrast/ContrastPage").then((it) => it.ContrastPage),
  "bench/:walkId/confirm": () => import("../plant-in-hand/confirm/ConfirmPage").then((it) => it.ConfirmPage),
  flora: () => import("../features/flora/FloraList").then((it) => it.FloraList),
  "flora/paste": () => import("../features/flora/PasteDescriptions").then((it) => it.PasteDescriptions),
  "flora/bring": () => import("../features/flora/BringFlora").then((it) => it.BringFlora),
  "flora/:floraId": () => import("../features/flora/FloraList").then((it) => it.FloraList),
  "flora/:floraId/crib": () => import("../plant-in-hand/contrast/CribPage").then((it) => it.CribPage),
  "flora/:floraId/glossary": () => import("../features/flora/Glossary").then((it) => it.Glossary),
  "flora/:floraId/taxa/:taxonId": () => import("../features/flora/TaxonPage").then((it) => it.TaxonPage),
  glossary: () => import("../features/glossary/GlossaryPage").then((it) => it.GlossaryPage),
  "glossary/all": () => import("../features/glossary/AllQualities").then((it) => it.AllQualities),
  "glossary/define": () => import("../features/glossary/DefinePage").then((it) => it.DefinePage),
  keys: () => import("../features/keys/KeyList").then((it) => it.KeyList),
  "keys/new": () => import("../features/keys/KeyEditor").then((it) => it.KeyEditor),
  "keys/:hash": () => import("../features/keys/KeyPage").then((it) => it.KeyPage),
  "site-visits": () => import("../features/site-visits/SiteVisitsPage").then((it) => it.SiteVisitsPage),
  "site-visits/:visitId": () => import("../features/site-visits/SiteVisitPage").then((it) => it.SiteVisitPage),
  "site-visits/:visitId/end": () => import("../features/site-visits/CloseVisitPage").then((it) => it.CloseVisitPage),
  surveys: () => import("../features/surveys/SurveysPage").then((it) => it.SurveysPage),
  "surveys/:surveyId": () => import("../features/surveys/SurveyPage").then((it) => it.SurveyPage),
  "surveys/:surveyId/figures": () => import("../features/surveys/SurveyFiguresPage").then((it) => it.SurveyFiguresPage),
  "surveys/:surveyId/report": () => import("../features/surveys/SurveyReportPage").then((it) => it.SurveyReportPage),
  "surveys/:surveyId/plots/:plotId": () => import("../features/surveys/PlotPage").then((it) => it.PlotPage),
  map: () => import("../features/map/MapPage").then((it) => it.MapPage),
  places: () => import("../features/places/PlacesPage").then((it) => it.PlacesPage),
  "places/:placeId": () => import("../features/places/PlacesPage").then((it) => it.PlacesPage),
  diagnostic: () => import("../plant-in-hand/contrast/CribPage").then((it) => it.CribPage),
  along: () => import("../features/along/TakeAlongPage").then((it) => it.TakeAlongPage),
  hand: () => import("../features/hand/HandPage").then((it) => it.HandPage),
  records: () => import("../features/records/RecordList").then((it) => it.RecordList),
  imports: () => import("../features/imports/ImportPage").then((it) => it.ImportPage),
  deliveries: () => import("../features/deliveries/DeliveriesPage").then((it) => it.DeliveriesPage),
  "deliveries/:deliveryId": () => import("../features/deliveries/DeliveryPage").then((it) => it.DeliveryPage),
  figures: () => import("../features/figures/FiguresPage").then((it) => it.FiguresPage),
  "figures/parents": () => import("../features/figures/GradientPage").then((it) => it.GradientPage),
  devices: () => import("../features/devices/DevicesPage").then((it) => it.DevicesPage),
  pair: () => import("../features/devices/PairPage").then((it) => it.PairPage),
  people: () => import("../features/people/PeoplePage").then((it) => it.PeoplePage),
  visits: () => import("../features/visits/VisitsPage").then((it) => it.VisitsPage),
  seasons: () => import("../features/seasons/SeasonsPage").then((it) => it.SeasonsPage),
  "populations/:populationId": () => import("../features/populations/PopulationPage").then((it) => it.PopulationPage),
  plants: () => import("../features/plants/PlantList").then((it) => it.PlantList),
  "plants/:plantId/visit": () => import("../features/plants/VisitPlantPage").then((it) => it.VisitPlantPage),
  "plants/:plantId": () => import("../features/plants/PlantPage").then((it) => it.PlantPage),
};

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    children: [
      ...Object.entries(pages).map(([path, load]) => ({
        path,
        lazy: async () => ({ Component: await load() }),
        ErrorBoundary: PageFailure,
        HydrateFallback: Opening,
      })),
      { path: "*", element: <NotFound /> },
    ],
  },
]);

/** Fetches the code of all pages, so that each can be gone to when there is no signal any more. What can't be had now is fetched when it is gone to. */
export function fetchPages(): void {
  for (const load of Object.values(pages)) void load().catch(() => undefined);
}
