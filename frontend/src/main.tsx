import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, StrictMode, Suspense, lazy } from "react";
import { createRoot } from "react-dom/client";
import {
  Link,
  Route,
  RouterProvider,
  createBrowserRouter,
  createRoutesFromElements,
} from "react-router";
import { Refusal, tellFrame } from "./api/client";
import { signedOut } from "./api/me";
import { AthleteFrame } from "./frame/AthleteFrame";
import { Shell } from "./frame/Shell";
import { Door } from "./frame/SignIn";
import { placeAt } from "./frame/places";
import { applyTheme } from "./frame/theme";
import "./index.css";
import { Block } from "./places/block/Block";
import { Dial } from "./places/dial/Dial";
import { Files } from "./places/files/Files";
import { Journal } from "./places/journal/Journal";
import { Kit } from "./places/kit/Kit";
import { Movements } from "./places/movements/Movements";
import { People } from "./places/people/People";
import { Roster } from "./places/roster/Roster";
import { HouseRules, OwnRules } from "./places/rules/Rules";
import { Season } from "./places/season/Season";
import { WeekSheet } from "./places/sheet/WeekSheet";

// The editor is as large as all the rest: it comes when somebody writes.
const Write = lazy(() =>
  import("./places/write/Write").then((found) => ({ default: found.Write })),
);

const Log = lazy(() => import("./places/log/Log").then((found) => ({ default: found.Log })));
const Floor = lazy(() =>
  import("./places/floor/Floor").then((found) => ({ default: found.Floor })),
);
const Run = lazy(() => import("./places/floor/Run").then((found) => ({ default: found.Run })));

function Later({ children }: { children: ReactNode }) {
  return <Suspense fallback={<p className="p-6 text-ink-2">Loading…</p>}>{children}</Suspense>;
}

applyTheme();
if (import.meta.env.PROD && "serviceWorker" in navigator)
  // Without it the application works as well, but not without a connection.
  navigator.serviceWorker.register("/sw.js").catch(() => undefined);

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // A refusal does not get better by asking again; a lost connection may.
      retry: (count, error) => count < 2 && error instanceof Refusal && error.status === 0,
      staleTime: 5_000,
      // Without a connection the service worker answers with what it has.
      networkMode: "always",
    },
  },
});

tellFrame({
  place: () => placeAt(location.pathname),
  signedOut: () => signedOut(queries),
});

function Nowhere() {
  return (
    <p className="p-6">
      There is no such place.{" "}
      <Link to="/" className="trail-link">
        Back to the roster
      </Link>
    </p>
  );
}

const router = createBrowserRouter(
  createRoutesFromElements(
    <Route element={<Shell />}>
      <Route index element={<Roster />} />
      <Route
        path="floor"
        element={
          <Later>
            <Floor />
          </Later>
        }
      />
      <Route
        path="floor/run"
        element={
          <Later>
            <Run />
          </Later>
        }
      />
      <Route path="movements" element={<Movements />} />
      <Route path="kit" element={<Kit />} />
      <Route path="rules" element={<HouseRules />} />
      <Route path="files" element={<Files />} />
      <Route path="people" element={<People />} />
      <Route path="journal" element={<Journal />} />
      <Route path="door" element={<Door />} />
      <Route path="athletes/:athlete/weeks/:week" element={<AthleteFrame />}>
        <Route path="sheet" element={<WeekSheet />} />
        <Route path="block" element={<Block />} />
        <Route path="season" element={<Season />} />
        <Route
          path="log"
          element={
            <Later>
              <Log />
            </Later>
          }
        />
        <Route
          path="write"
          element={
            <Later>
              <Write />
            </Later>
          }
        />
        <Route path="dial" element={<Dial />} />
        <Route path="rules" element={<OwnRules />} />
      </Route>
      <Route path="*" element={<Nowhere />} />
    </Route>,
  ),
);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
