/** Ways of joining at a node. Efficiency is the share of the metal's and timber's strength that gets through. */
export const joinKinds = [
  { id: 'welded', name: 'welded or one piece', efficiency: 1 },
  { id: 'threaded', name: 'screwed into a fitting', efficiency: 1 },
  { id: 'epoxied', name: 'epoxy putty', efficiency: 0.9 },
  { id: 'bolted', name: 'bolted through plates', efficiency: 0.9 },
  { id: 'splinted', name: 'splinted and glued', efficiency: 0.85 },
  { id: 'sleeved', name: 'pipe in pipe, pinned', efficiency: 0.8 },
  { id: 'bound-glued', name: 'bound with wire and glued', efficiency: 0.7 },
  { id: 'socketed', name: 'pushed into a close socket, comes out', efficiency: 0.6 },
  { id: 'hose-clamp', name: 'hose clamp', efficiency: 0.6 },
  { id: 'bound', name: 'bound with wire', efficiency: 0.5 },
  { id: 'twisted', name: 'twisted', efficiency: 0.3 },
  { id: 'taped', name: 'taped', efficiency: 0.15 },
  { id: 'pushed', name: 'pushed into foam', efficiency: 0.1 },
] as const;
export type JoinKindId = (typeof joinKinds)[number]['id'];
export const joinIds = joinKinds.map((j) => j.id) as [JoinKindId, ...JoinKindId[]];

export function joinEfficiency(id: JoinKindId): number {
  const kind = joinKinds.find((j) => j.id === id);
  if (!kind) throw new Error(`no such join: ${id}`);
  return kind.efficiency;
}
