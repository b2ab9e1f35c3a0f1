import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ComponentType, StrictMode, Suspense, lazy } from "react";
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
import { copyAsNumbers } from "./frame/copyTable";
import { AthleteFrame } from "./frame/AthleteFrame";
import { Shell } from "./frame/Shell";
import { Door } from "./frame/SignIn";
import { placeAt } from "./frame/places";
import { applyTheme } from "./frame/theme";
import "./index.css";

let placesSoFar = 0;

/** A place, fetched when somebody goes there: the first page needs none of the others. */
function place(fetch: () => Promise<ComponentType>) {
  const Place = lazy(async () => ({ default: await fetch() }));
  placesSoFar += 1;
  return (
    // With a key of its own it takes the other's place at once, and says that it is on its way.
    <Suspense key={placesSoFar} fallback={<p className="p-6 text-ink-2">Loading…</p>}>
      <Place />
    </Suspense>
  );
}

applyTheme();
document.addEventListener("copy", copyAsNumbers);
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
      <Route index element={place(async () => (await import("./places/roster/Roster")).Roster)} />
      <Route
        path="squad"
        element={place(async () => (await import("./places/squad/Squad")).Squad)}
      />
      <Route
        path="squad/draft"
        element={place(async () => (await import("./places/squad/SquadDraft")).SquadDraft)}
      />
      <Route
        path="floor"
        element={place(async () => (await import("./places/floor/Floor")).Floor)}
      />
      <Route
        path="floor/run"
        element={place(async () => (await import("./places/floor/Run")).Run)}
      />
      <Route
        path="movements"
        element={place(async () => (await import("./places/movements/Movements")).Movements)}
      />
      <Route path="kit" element={place(async () => (await import("./places/kit/Kit")).Kit)} />
      <Route
        path="rules"
        element={place(async () => (await import("./places/rules/Rules")).HouseRules)}
      />
      <Route
        path="files"
        element={place(async () => (await import("./places/files/Files")).Files)}
      />
      <Route
        path="people"
        element={place(async () => (await import("./places/people/People")).People)}
      />
      <Route
        path="journal"
        element={place(async () => (await import("./places/journal/Journal")).Journal)}
      />
      <Route path="door" element={<Door />} />
      <Route path="athletes/:athlete/weeks/:week" element={<AthleteFrame />}>
        <Route
          path="sheet"
          element={place(async () => (await import("./places/sheet/WeekSheet")).WeekSheet)}
        />
        <Route
          path="block"
          element={place(async () => (await import("./places/block/Block")).Block)}
        />
        <Route
          path="season"
          element={place(async () => (await import("./places/season/Season")).Season)}
        />
        <Route path="log" element={place(async () => (await import("./places/log/Log")).Log)} />
        <Route
          path="write"
          element={place(async () => (await import("./places/write/Write")).Write)}
        />
        <Route path="dial" element={place(async () => (await import("./places/dial/Dial")).Dial)} />
        <Route
          path="rules"
          element={place(async () => (await import("./places/rules/Rules")).OwnRules)}
        />
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
