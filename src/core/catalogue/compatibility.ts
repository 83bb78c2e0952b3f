/** Materials that do not get on. `left` meets `right`; each rule says why, and what to do instead. */
export interface CompatibilityRule {
  readonly id: string;
  readonly left: string;
  readonly right: string;
  readonly why: string;
  readonly instead: string;
}

export const compatibilityRules: readonly CompatibilityRule[] = [
  { id: 'steel-damp', left: 'steel or black wire', right: 'damp clay', why: 'it rusts and the rust stains through', instead: 'galvanised or aluminium wire, or a plastic wrap over the steel' },
  { id: 'paper-damp', left: 'cardboard, MDF or paper', right: 'damp clay', why: 'it takes up water and goes soft', instead: 'prime it or wrap it in tape first' },
  { id: 'aluminium-alkali', left: 'aluminium', right: 'cement or fresh plaster', why: 'the alkali eats it', instead: 'steel, or a coat of varnish on the wire' },
  { id: 'copper-damp', left: 'copper', right: 'damp or salt', why: 'it turns green and bleeds', instead: 'aluminium or varnished wire' },
  { id: 'dyed-white', left: 'dyed clay', right: 'white clay on top', why: 'colour bleeds through', instead: 'a neutral undercoat between them' },
  { id: 'slick-core', left: 'clay', right: 'bare slick foil or plastic', why: 'it slides off', instead: 'tape, twine, glue or scuffing' },
  { id: 'polystyrene-solvent', left: 'polystyrene', right: 'solvent, spray paint, styrene resin or heat', why: 'it melts and gives off fumes', instead: 'seal it with water-based primer, or another foam' },
  { id: 'bake-limit', left: 'any core', right: 'a bake above what it stands', why: 'it softens, shrinks or burns', instead: 'a core that stands the oven' },
  { id: 'hot-glue-heat', left: 'hot-melt glue', right: 'a bake or a hot van', why: 'it lets go', instead: 'epoxy, screws or wire' },
  { id: 'silicone-poison', left: 'sulphur clay, latex, amine-cured epoxy or uncured resin prints', right: 'addition-cure silicone', why: 'the silicone does not set', instead: 'sulphur-free clay, a sealing coat, and always a test patch' },
  { id: 'water-clay-silicone', left: 'water-based clay', right: 'silicone', why: 'moisture spoils the face', instead: 'an acrylic seal first' },
  { id: 'plaster-plaster', left: 'plaster', right: 'plaster', why: 'it bonds to itself', instead: 'soap or petroleum jelly between them' },
  { id: 'latex-latex', left: 'latex', right: 'itself when demoulded', why: 'the faces stick for good', instead: 'powder both faces' },
  { id: 'oil-thinner', left: 'oil-based clay', right: 'solvent-thin paint or a warm van', why: 'it softens and slumps', instead: 'a sealing coat, and a cool box for the drive' },
  { id: 'water-outdoors', left: 'dried earthen or paper pieces', right: 'water outdoors', why: 'they go back to mud or pulp', instead: 'seal them, and still keep them in' },
  { id: 'rigid-under-water-clay', left: 'a rigid core close to the surface', right: 'water-based clay', why: 'the clay shrinks and cracks over it', instead: 'keep it deep, wrapped and damp' },
  { id: 'foil-epoxy', left: 'foil alone', right: 'epoxy clay', why: 'foil without a wire is too weak to carry it', instead: 'a wire in every limb' },
];
