import { sum } from "@/core/money/amounts";
import { existsSync, readFileSync } from "node:fs";
import { estimatedRoads } from "./estimated-roads";
import { graphRoads, type RoadGraph } from "./road-graph";
import type { Address, PlaceGateway, RoadGateway } from "./types";

/** A town as a file: its roads, its addresses, and what is drawn of it. The demo generates one. */
export interface Town extends RoadGraph {
  addresses: Address[];
  /** GeoJSON (RFC 7946) of coast, river and districts. */
  features: { type: "FeatureCollection"; features: unknown[] };
}

export const loadTown = (file: string): Town | null =>
  existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as Town) : null;

/** Address look-up on the town's own list: each word typed must begin a word of the address. */
export function townPlaces(town: Town | null): PlaceGateway {
  const list = (town?.addresses ?? []).map((address) => ({
    address,
    words: wordsOf(`${address.line} ${address.postcode} ${address.postcode.replace(" ", "")}`),
  }));
  const byId = new Map(list.map(({ address }) => [address.id, address]));
  return {
    suggest(text, limit) {
      const asked = wordsOf(text);
      if (asked.length === 0) return [];
      const found: Address[] = [];
      for (const { address, words } of list) {
        if (asked.every((a) => words.some((w) => w.startsWith(a)))) found.push(address);
        if (found.length === limit) break;
      }
      return found;
    },
    find: (id) => byId.get(id) ?? null,
    locate({ line, postcode }) {
      const [street, code] = [
        wordsOf(line).filter((word) => !/^\d/.test(word)),
        postcode.replace(/\s/g, "").toUpperCase(),
      ];
      const there = list.filter(({ address }) => address.postcode.replace(/\s/g, "") === code);
      const near = there.filter(({ words }) => street.some((word) => words.includes(word)));
      const among = near.length ? near : there;
      if (among.length === 0) return null;
      // The middle of the street, or of the postcode.
      const mean = {
        lng: sum(among.map((a) => a.address.lng)) / among.length,
        lat: sum(among.map((a) => a.address.lat)) / among.length,
      };
      return { ...mean, ...(among[0]!.address.town && { town: among[0]!.address.town }) };
    },
  };
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** Driving minutes on the town's roads, or an estimate from coordinates where there is no town. */
export const townRoads = (town: Town | null): RoadGateway => (town ? graphRoads(town) : estimatedRoads());
