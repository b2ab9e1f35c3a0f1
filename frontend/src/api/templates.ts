import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { type WeekPlace, at } from "./place";

export function useTemplates() {
  return useQuery({
    queryKey: ["templates"],
    queryFn: async () => given(await client.GET("/api/templates")),
  });
}

export const templates = {
  keep: async (place: WeekPlace, body: Schemas["TemplateBody"]) =>
    given(
      await client.POST("/api/athletes/{athlete_id}/weeks/{week}/template", {
        params: { path: at(place) },
        body,
      }),
    ),
  lay: async (template: number, body: Schemas["LayTemplateBody"]) =>
    given(
      await client.POST("/api/templates/{template}/lay", { params: { path: { template } }, body }),
    ),
  remove: async (template: number) =>
    given(
      await client.POST("/api/templates/{template}/remove", { params: { path: { template } } }),
    ),
  restore: async (template: number) =>
    given(
      await client.POST("/api/templates/{template}/restore", { params: { path: { template } } }),
    ),
};
