import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { isLeaving, Refused, signOut } from "./api/client";
import { Broken, Home, NotHere, Waiting } from "./components/Edges";
import { PlantNames } from "./components/PlantNames";
import "./index.css";
import { apply } from "./state/device";
import { keepOnDevice } from "./state/onDevice";

apply();
if (import.meta.env.PROD) keepOnDevice();
// a sign-out that could not reach the server comes before anything else
if (isLeaving()) await signOut();
window.addEventListener("online", () => {
  if (isLeaving()) void signOut().then(() => client.clear());
});

const client = new QueryClient({
  defaultOptions: {
    mutations: { networkMode: "always" },
    queries: {
      // a lost line is told, never waited for in silence: the server may be on this very machine
      networkMode: "always",
      retry: (count, error) => count < 2 && !(error instanceof Refused && error.status > 0),
    },
  },
});

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    Component: PlantNames,
    HydrateFallback: Waiting,
    children: [
      { path: "/", Component: Home },
      {
        path: "/sign-in",
        lazy: async () => ({ Component: (await import("./features/sign-in/SignIn")).SignIn }),
      },
      {
        path: "/join",
        lazy: async () => ({ Component: (await import("./features/account/Join")).Join }),
      },
      {
        path: "/new-password",
        lazy: async () => ({
          Component: (await import("./features/account/NewPassword")).NewPassword,
        }),
      },
      {
        path: "/me",
        lazy: async () => ({ Component: (await import("./features/account/Account")).Account }),
      },
      {
        path: "/w/:works/people",
        lazy: async () => ({
          Component: (await import("./features/people/PeopleScreen")).PeopleScreen,
        }),
      },
      {
        path: "/w/:works/log",
        lazy: async () => ({ Component: (await import("./features/people/LogScreen")).LogScreen }),
      },
      {
        path: "/terms",
        lazy: async () => ({ Component: (await import("./features/terms/Terms")).Terms }),
      },
      {
        path: "/w/:works",
        lazy: async () => ({ Component: (await import("./features/motors/Motors")).Motors }),
      },
      {
        path: "/w/:works/m/:tag/card",
        lazy: async () => ({ Component: (await import("./features/card/Card")).Card }),
      },
      {
        path: "/w/:works/m/:tag/j/:number",
        lazy: async () => ({ Component: (await import("./components/JobRoom")).JobRoom }),
        children: [
          {
            path: "plate",
            lazy: async () => ({
              Component: (await import("./features/plate/PlateScreen")).PlateScreen,
            }),
          },
          {
            path: "leads",
            lazy: async () => ({
              Component: (await import("./features/leads/LeadsScreen")).LeadsScreen,
            }),
          },
          {
            path: "bench",
            lazy: async () => ({
              Component: (await import("./features/bench/BenchScreen")).BenchScreen,
            }),
          },
          {
            path: "joints",
            lazy: async () => ({
              Component: (await import("./features/joints/JointsScreen")).JointsScreen,
            }),
          },
          {
            path: "replace",
            lazy: async () => ({
              Component: (await import("./features/replace/ReplaceScreen")).ReplaceScreen,
            }),
          },
          {
            path: "size",
            lazy: async () => ({
              Component: (await import("./features/size/SizeScreen")).SizeScreen,
            }),
          },
          {
            path: "starter",
            lazy: async () => ({
              Component: (await import("./features/starter/StarterScreen")).StarterScreen,
            }),
          },
          {
            path: "drawings",
            lazy: async () => ({
              Component: (await import("./features/drawings/DrawingsScreen")).DrawingsScreen,
            }),
          },
          {
            path: "check",
            lazy: async () => ({
              Component: (await import("./features/check/CheckScreen")).CheckScreen,
            }),
          },
          {
            path: "panel",
            lazy: async () => ({
              Component: (await import("./features/panel/PanelScreen")).PanelScreen,
            }),
          },
          {
            path: "run-up",
            lazy: async () => ({
              Component: (await import("./features/run-up/RunUpScreen")).RunUpScreen,
            }),
          },
          {
            path: "trouble",
            lazy: async () => ({
              Component: (await import("./features/trouble/TroubleScreen")).TroubleScreen,
            }),
          },
          {
            path: "rehearse",
            lazy: async () => ({
              Component: (await import("./features/rehearse/RehearseScreen")).RehearseScreen,
            }),
          },
        ],
      },
      {
        path: "/w/:works/convert/:machine",
        lazy: async () => ({
          Component: (await import("./features/convert/ConvertScreen")).ConvertScreen,
        }),
      },
      {
        path: "/w/:works/heaters",
        lazy: async () => ({
          Component: (await import("./features/heaters/HeatersScreen")).HeatersScreen,
        }),
      },
      {
        path: "/w/:works/sensors",
        lazy: async () => ({
          Component: (await import("./features/sensors/SensorsScreen")).SensorsScreen,
        }),
      },
      {
        path: "/w/:works/practice",
        lazy: async () => ({
          Component: (await import("./features/practice/PracticeScreen")).PracticeScreen,
        }),
      },
      {
        path: "/w/:works/audit",
        lazy: async () => ({
          Component: (await import("./features/audit/AuditScreen")).AuditScreen,
        }),
      },
      {
        path: "/w/:works/schedule",
        lazy: async () => ({
          Component: (await import("./features/schedule/ScheduleScreen")).ScheduleScreen,
        }),
      },
      {
        path: "/w/:works/wiring",
        lazy: async () => ({
          Component: (await import("./features/wiring/WiringScreen")).WiringScreen,
        }),
      },
      {
        path: "/w/:works/which",
        lazy: async () => ({
          Component: (await import("./features/which/WhichScreen")).WhichScreen,
        }),
      },
      {
        path: "/w/:works/feeder/:machine",
        lazy: async () => ({
          Component: (await import("./features/feeder/FeederScreen")).FeederScreen,
        }),
      },
      {
        path: "/w/:works/rules",
        lazy: async () => ({ Component: (await import("./features/rules/Rules")).Rules }),
      },
      { path: "*", Component: NotHere },
    ],
  },
]);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
