import { distanceKm, type Point } from "@/core/place/points";
import TinyQueue from "tinyqueue";
import type { RoadGateway } from "./types";

/** Roads as a graph: junctions, and stretches between two of them, drivable both ways. */
export interface RoadGraph {
  nodes: Point[];
  /** From node, to node, minutes. */
  edges: [number, number, number][];
}

/**
 * Shortest driving time on the graph (Dijkstra, A note on two problems in connexion with graphs,
 * 1959). One search per junction is made when it is first asked for, and kept: roads do not change
 * while the application runs.
 */
export function roadMinutes(graph: RoadGraph): RoadGateway {
  const neighbours: [number, number][][] = graph.nodes.map(() => []);
  for (const [a, b, minutes] of graph.edges) {
    neighbours[a]!.push([b, minutes]);
    neighbours[b]!.push([a, minutes]);
  }
  const nearest = new Map<string, { node: number; walk: number }>();
  const searches = new Map<number, Float32Array>();

  const nodeNear = (point: Point) => {
    const key = `${point.lng},${point.lat}`;
    let near = nearest.get(key);
    if (!near) {
      near = { node: 0, walk: Infinity };
      for (const [node, at] of graph.nodes.entries()) {
        const walk = distanceKm(point, at);
        if (walk < near.walk) near = { node, walk };
      }
      nearest.set(key, near);
    }
    return near.node;
  };
  const from = (node: number) => {
    let search = searches.get(node);
    if (!search) searches.set(node, (search = shortestFrom(node, neighbours)));
    return search;
  };
  return {
    minutes(a, b) {
      if (a.lng === b.lng && a.lat === b.lat) return 0;
      return Math.max(1, Math.ceil(from(nodeNear(a))[nodeNear(b)]!));
    },
  };
}

function shortestFrom(source: number, neighbours: readonly [number, number][][]): Float32Array {
  const best = new Float32Array(neighbours.length).fill(Infinity);
  best[source] = 0;
  const queue = new TinyQueue<[number, number]>([[0, source]], (a, b) => a[0] - b[0]);
  for (let next = queue.pop(); next; next = queue.pop()) {
    const [minutes, node] = next;
    if (minutes > best[node]!) continue;
    for (const [neighbour, step] of neighbours[node]!)
      if (Math.fround(minutes + step) < best[neighbour]!) {
        best[neighbour] = minutes + step;
        queue.push([best[neighbour]!, neighbour]);
      }
  }
  return best;
}
