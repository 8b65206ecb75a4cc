import { createBrowserRouter } from "react-router";
import { BenchStart } from "../features/bench/BenchStart";
import { BenchWalk } from "../features/bench/BenchWalk";
import { BringFlora } from "../features/flora/BringFlora";
import { ConfirmPage } from "../features/confirm/ConfirmPage";
import { FloraList } from "../features/flora/FloraList";
import { Glossary } from "../features/flora/Glossary";
import { TaxonPage } from "../features/flora/TaxonPage";
import { HandPage } from "../features/hand/HandPage";
import { KeyEditor } from "../features/keys/KeyEditor";
import { KeyList } from "../features/keys/KeyList";
import { KeyPage } from "../features/keys/KeyPage";
import { PlantPage } from "../features/plants/PlantPage";
import { RecordList } from "../features/records/RecordList";
import { ContrastPage } from "../features/sift/ContrastPage";
import { CribPage } from "../features/sift/CribPage";
import { SiftPage } from "../features/sift/SiftPage";
import { PlantList } from "../features/plants/PlantList";
import { VisitPlantPage } from "../features/plants/VisitPlantPage";
import { PopulationPage } from "../features/populations/PopulationPage";
import { SeasonsPage } from "../features/seasons/SeasonsPage";
import { TodayPage } from "../features/today/TodayPage";
import { VisitsPage } from "../features/visits/VisitsPage";
import { Frame } from "./Frame";
import { NotFound } from "./NotFound";

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    children: [
      { index: true, element: <TodayPage /> },
      { path: "bench", element: <BenchStart /> },
      { path: "bench/:walkId", element: <BenchWalk /> },
      { path: "bench/:walkId/sift", element: <SiftPage /> },
      { path: "bench/:walkId/contrast", element: <ContrastPage /> },
      { path: "bench/:walkId/confirm", element: <ConfirmPage /> },
      { path: "flora", element: <FloraList /> },
      { path: "flora/bring", element: <BringFlora /> },
      { path: "flora/:floraId", element: <FloraList /> },
      { path: "flora/:floraId/crib", element: <CribPage /> },
      { path: "flora/:floraId/glossary", element: <Glossary /> },
      { path: "flora/:floraId/taxa/:taxonId", element: <TaxonPage /> },
      { path: "keys", element: <KeyList /> },
      { path: "keys/new", element: <KeyEditor /> },
      { path: "keys/:hash", element: <KeyPage /> },
      { path: "hand", element: <HandPage /> },
      { path: "records", element: <RecordList /> },
      { path: "visits", element: <VisitsPage /> },
      { path: "seasons", element: <SeasonsPage /> },
      { path: "populations/:populationId", element: <PopulationPage /> },
      { path: "plants", element: <PlantList /> },
      { path: "plants/:plantId/visit", element: <VisitPlantPage /> },
      { path: "plants/:plantId", element: <PlantPage /> },
      { path: "*", element: <NotFound /> },
    ],
  },
]);
