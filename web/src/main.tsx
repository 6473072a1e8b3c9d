import { QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Link, Navigate, Route, Routes } from "react-router";
import { useWords } from "./app/i18n";
import { Frame } from "./app/Frame";
import { useOverview } from "./app/Header";
import { HistoryProvider } from "./app/history";
import { KitchenProvider } from "./app/kitchen";
import { NoticeProvider } from "./app/notices";
import { queries } from "./app/queries";
import { beQuietAsBefore, QuietProvider } from "./app/quiet";
import "./main.css";
import { Empty, Loading } from "./ui/states";

const BackupPage = lazy(() => import("./backup/BackupPage"));
const Beginning = lazy(() => import("./beginning/Beginning"));
const AimRoom = lazy(() => import("./rooms/aim/AimRoom"));
const FoodsRoom = lazy(() => import("./rooms/foods/FoodsRoom"));
const Libraries = lazy(() => import("./rooms/foods/Libraries"));
const RecipesRoom = lazy(() => import("./rooms/recipes/RecipesRoom"));
const Workbench = lazy(() => import("./rooms/recipes/Workbench"));
const PlanRoom = lazy(() => import("./rooms/plan/PlanRoom"));
const ShopRoom = lazy(() => import("./rooms/shop/ShopRoom"));
const CookRoom = lazy(() => import("./rooms/cook/CookRoom"));
const PackRoom = lazy(() => import("./rooms/pack/PackRoom"));
const PackBench = lazy(() => import("./rooms/pack/PackBench"));
const ContainersPage = lazy(() => import("./rooms/pack/containers/ContainersPage"));
const EyePage = lazy(() => import("./rooms/pack/eye/EyePage"));
const LabelsPage = lazy(() => import("./rooms/pack/labels/LabelsPage"));
const KeepRoom = lazy(() => import("./rooms/keep/KeepRoom"));
const BoxPage = lazy(() => import("./rooms/keep/BoxPage"));
const EatRoom = lazy(() => import("./rooms/eat/EatRoom"));
const ReviewRoom = lazy(() => import("./rooms/review/ReviewRoom"));

/** The week; an empty house begins first. */
function Home() {
  const overview = useOverview();
  if (!overview) return <Loading isPage />;
  return <Navigate to={overview.eaters + overview.recipes === 0 ? "/begin" : "/plan"} replace />;
}

function Lost() {
  const { t } = useWords();
  return (
    <Empty isPage title={t("lost.title")}>
      <Link to="/plan" className="link">
        {t("lost.home")}
      </Link>
    </Empty>
  );
}

beQuietAsBefore();
createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <KitchenProvider>
        <QuietProvider>
          <NoticeProvider>
            <HistoryProvider>
              <BrowserRouter>
                <Routes>
                  <Route element={<Frame />}>
                    <Route index element={<Home />} />
                    <Route path="begin" element={<Beginning />} />
                    <Route path="aim" element={<AimRoom />} />
                    <Route path="foods" element={<FoodsRoom />} />
                    <Route path="foods/libraries" element={<Libraries />} />
                    <Route path="foods/:id" element={<FoodsRoom />} />
                    <Route path="recipes" element={<RecipesRoom />} />
                    <Route path="recipes/:id" element={<Workbench />} />
                    <Route path="plan" element={<PlanRoom />} />
                    <Route path="shop" element={<ShopRoom />} />
                    <Route path="cook" element={<CookRoom />} />
                    <Route path="pack" element={<PackRoom />} />
                    <Route path="pack/:id" element={<PackBench />} />
                    <Route path="labels" element={<LabelsPage />} />
                    <Route path="containers" element={<ContainersPage />} />
                    <Route path="eye" element={<EyePage />} />
                    <Route path="keep" element={<KeepRoom />} />
                    <Route path="box/:code" element={<BoxPage />} />
                    <Route path="eat" element={<EatRoom />} />
                    <Route path="review" element={<ReviewRoom />} />
                    <Route path="backup" element={<BackupPage />} />
                    <Route path="*" element={<Lost />} />
                  </Route>
                </Routes>
              </BrowserRouter>
            </HistoryProvider>
          </NoticeProvider>
        </QuietProvider>
      </KitchenProvider>
    </QueryClientProvider>
  </StrictMode>,
);
