import { useMemo } from "react";
import { $api, type Schemas } from "./client";

export type Atlas = Schemas["AtlasView"];

/** The names of things. Stays the same while the application runs. */
export function useAtlas() {
  return $api.useQuery(
    "get",
    "/api/v1/atlas",
    {},
    { staleTime: Number.POSITIVE_INFINITY, gcTime: Number.POSITIVE_INFINITY },
  );
}

export interface Names {
  region: (id: string) => string;
  site: (id: string) => string;
  exercise: (id: string) => string;
  equipment: (id: string) => string;
  look: (id: string) => string;
  pose: (id: string) => string;
  /** The part of the body whose muscles a site mixes. */
  part: (site: string) => string;
}

type School = Schemas["School"];
const ABOUT: School["about"][] = ["week", "sets", "choice", "form", "judging"];

/** The questions on which coaches disagree, by what they are about. */
export function schoolsByAbout(schools: School[]): [School["about"], School[]][] {
  const groups = ABOUT.map((about): [School["about"], School[]] => [
    about,
    schools.filter((school) => school.about === about),
  ]);
  return groups.filter(([, questions]) => questions.length > 0);
}

/** Names by id; an id without a name shows as itself. */
export function namesOf(atlas: Atlas | undefined): Names {
  const lookUp = (things: { id: string; name: string }[] | undefined) => {
    const byId = new Map(things?.map((thing) => [thing.id, thing.name]));
    return (id: string) => byId.get(id) ?? id;
  };
  return {
    region: lookUp(atlas?.regions),
    site: lookUp(atlas?.sites),
    exercise: lookUp(atlas?.exercises),
    equipment: lookUp(atlas?.equipment),
    look: lookUp(atlas?.looks),
    pose: lookUp(atlas?.poses),
    part: lookUp(atlas?.sites.map(({ id, name, part }) => ({ id, name: part ?? name }))),
  };
}

export function useNames(): Names {
  const { data } = useAtlas();
  return useMemo(() => namesOf(data), [data]);
}
