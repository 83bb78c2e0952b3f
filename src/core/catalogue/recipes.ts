/** Mixtures people make themselves, in parts. */
export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly by: 'volume' | 'parts';
  readonly parts: readonly { readonly what: string; readonly parts: number }[];
  readonly note: string;
}

export const recipes: readonly Recipe[] = [
  {
    id: 'paper-clay',
    name: 'paper clay',
    by: 'volume',
    parts: [
      { what: 'wet paper pulp', parts: 3 },
      { what: 'earthen air-dry clay', parts: 1.5 },
      { what: 'white wood glue', parts: 1 },
      { what: 'filler', parts: 1 },
    ],
    note: 'Glue makes it tougher and makes it shrink; filler makes it smooth and weak.',
  },
  {
    id: 'sealing-primer',
    name: 'sealing primer for cardboard',
    by: 'volume',
    parts: [
      { what: 'plaster', parts: 1 },
      { what: 'white wood glue', parts: 1 },
      { what: 'water', parts: 1 },
    ],
    note: 'Mix a little at a time: it sets. A mask against the dust.',
  },
  {
    id: 'flour-paste',
    name: 'flour paste',
    by: 'parts',
    parts: [
      { what: 'flour', parts: 1 },
      { what: 'water', parts: 5 },
    ],
    note: 'Cook it gently and use it within two days.',
  },
  {
    id: 'glue-wash',
    name: 'glue wash',
    by: 'parts',
    parts: [
      { what: 'white wood glue', parts: 1 },
      { what: 'water', parts: 2 },
    ],
    note: 'A first coat for paper strips.',
  },
  {
    id: 'cold-porcelain',
    name: 'cold porcelain',
    by: 'parts',
    parts: [
      { what: 'white wood glue', parts: 1 },
      { what: 'cornstarch', parts: 1 },
      { what: 'oil', parts: 0.05 },
      { what: 'mild acid', parts: 0.05 },
    ],
    note: 'Warm it slowly and knead it while it can be held.',
  },
  {
    id: 'reclaim',
    name: 'reclaimed water-borne clay',
    by: 'parts',
    parts: [
      { what: 'dry broken clay', parts: 1 },
      { what: 'distilled water', parts: 0.3 },
    ],
    note: 'Soak some hours, then knead. Not for epoxy or anything baked.',
  },
];
