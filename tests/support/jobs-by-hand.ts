/**
 * Eleven jobs, written down step by step by hand as they are done in a workshop, before any plan was looked at. `steps` says
 * which steps of a plan are this line; `after` names the lines that must be over before it: in the same place where both
 * are about a place, everywhere where one of them is about the whole piece. What the lists leave open, a plan may choose.
 */
export interface HandLine {
  readonly key: string;
  readonly done: string;
  readonly steps: RegExp;
  readonly after: readonly string[];
  /** Only a region of the piece has it: cracks are mended where there are any. */
  readonly maybe?: true;
}

export interface HandJob {
  readonly name: string;
  readonly lines: readonly HandLine[];
}

const line = (key: string, done: string, steps: RegExp, ...after: string[]): HandLine => ({ key, done, steps, after });
const maybe = (l: HandLine): HandLine => ({ ...l, maybe: true });

const setOut = line('set out', 'Measure it, draw it at full size', /^set-out$/);
const armature = line('armature', 'Cut, bend and join the armature, fix it to its board', /^armature$/, 'set out');
const fill = (after = 'armature') => line('fill', 'Fill it out and wrap it', /^bulk$/, after);

export const jobsByHand: readonly HandJob[] = [
  {
    name: 'branching piece in sections, paper clay',
    lines: [
      setOut,
      line('armature', 'Bundle the wires, drill the post, fix them in it, in sections', /^armature$/, 'set out'),
      line('fill', 'Pack foil along the wires, tape over it', /^bulk$/, 'armature'),
      line('lay', 'Lay the clay on each section by itself, from the foot outward', /^lay\//, 'fill'),
      line('smooth', 'Smooth each part with a damp hand while it is soft', /^smooth\//, 'lay'),
      line('join', 'When the sections are dry, join them and fill the joints', /^join-sections$/, 'lay', 'smooth'),
      line('carve', 'Carve and rasp what is dry', /^refine\//, 'join'),
      maybe(line('mend', 'Mend what cracked', /^mend\//, 'carve')),
      line('sand', 'Sand it, with a mask on', /^sand\//, 'carve', 'mend'),
      line('detail', 'Cut the fine marks last: sanding would take them off', /^detail\//, 'carve', 'mend', 'sand'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Fit it to its stand, pack it', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'ring and figure on primed card, paper clay',
    lines: [
      setOut,
      armature,
      fill(),
      line('prime', 'Prime the card, so that the wet clay does not soften it; let it dry a day', /^ground\//, 'fill'),
      line('lay', 'Lay the clay from the foot up', /^lay\//, 'prime'),
      line('smooth', 'Smooth it while it is soft', /^smooth\//, 'lay'),
      line('carve', 'Carve what is dry', /^refine\//, 'lay', 'smooth'),
      maybe(line('mend', 'Mend cracks', /^mend\//, 'carve')),
      line('sand', 'Sand', /^sand\//, 'carve', 'mend'),
      line('detail', 'Fine marks', /^detail\//, 'sand', 'mend', 'carve'),
      line(
        'paint',
        'Prime, ground colour, paint, varnish: only when it is dry through',
        /^spray-paint\//,
        'detail',
        'sand',
      ),
      line('photograph', 'Photograph it', /^photograph$/, 'paint'),
      line('fit', 'Set it up, pack it', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'foil and epoxy creature, propped',
    lines: [
      setOut,
      armature,
      fill(),
      line('props', 'Prop what hangs', /^props$/, 'fill'),
      line(
        'lay',
        'Knead a batch, lay it, smooth it with a wet finger, before it goes off; then the next',
        /^lay\//,
        'props',
        'fill',
      ),
      line('smooth', 'Last smoothing of what was laid in the sitting', /^smooth\//, 'lay'),
      line('props away', 'Take the props away when it has set, not before', /^props-away$/, 'lay', 'smooth'),
      line('carve', 'File and carve what has set', /^refine\//, 'lay', 'smooth'),
      line('sand', 'Wet sand it, or with a respirator', /^sand\//, 'carve'),
      line('detail', 'Fine marks last', /^detail\//, 'sand', 'carve'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Set it up, pack it', /^fit$/, 'photograph', 'props away'),
    ],
  },
  {
    name: 'foam-type head, lifted off and closed',
    lines: [
      setOut,
      line('form', 'Make the form and its release ready', /^armature$/, 'set out'),
      fill('form'),
      line('lay', 'Lay an even wall over it', /^lay\//, 'fill'),
      line('smooth', 'Smooth it before it skins', /^smooth\//, 'lay'),
      line('uncover', 'Take the cover off the features after a day', /^uncover\//, 'lay'),
      line('lift', 'Lift it off while it still gives', /^lift$/, 'lay', 'smooth'),
      line('carve', 'Trim and carve what is dry', /^refine\//, 'lift'),
      maybe(line('mend', 'Mend cracks', /^mend\//, 'carve')),
      line('sand', 'Sand it', /^sand\//, 'carve', 'mend'),
      line('detail', 'Fine marks', /^detail\//, 'sand', 'carve', 'mend'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Set it up, pack it', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'oven bust in three bakes',
    lines: [
      setOut,
      armature,
      fill(),
      line('lay 1', 'First skin of clay', /^lay\/[^/]+\/1$/, 'fill'),
      line('bake 1', 'Bake it, let it cool in the oven', /^bake\/1$/, 'lay 1'),
      line('lay 2', 'Build up the forms', /^lay\/[^/]+\/2$/, 'bake 1', 'lay 1'),
      line('bake 2', 'Bake it again', /^bake\/2$/, 'lay 2'),
      line('lay 3', 'The last skin', /^lay\/[^/]+\/3$/, 'bake 2', 'lay 2'),
      line('model', 'Model it while it is raw: it cannot be pushed once it is baked', /^refine\//, 'lay 3'),
      line('smooth', 'Smooth it raw', /^smooth\//, 'model'),
      line('detail', 'Texture into the raw clay', /^detail\//, 'model', 'smooth'),
      // Written down first with sanding after it: that would take off the texture, so it is left to the maker.
      line('bake 3', 'Last bake', /^bake\/3$/, 'lay 3', 'model', 'smooth', 'detail'),
      line('photograph', 'Photograph it', /^photograph$/, 'bake 3'),
      line('fit', 'Set it up, pack it', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'dense bust in clay kept damp, for a plaster mould',
    lines: [
      setOut,
      line('armature', 'Two loops on a pipe, the pipe on its flange', /^armature$/, 'set out'),
      line('lay', 'Block it in from the chest up, over sittings, under plastic between them', /^lay\//, 'armature'),
      line('keep damp', 'Wet cloth and a bag over it whenever it is left', /^keep-damp$/),
      line('model', 'Model it: rake across, then finer', /^refine\//, 'lay'),
      line('smooth', 'Smooth it with a damp brush before the fine marks', /^smooth\//, 'model', 'lay'),
      line('detail', 'Fine marks', /^detail\//, 'model', 'smooth'),
      line('photograph', 'Photograph it: the mould is the end of it', /^photograph$/, 'detail'),
      line('mould', 'Shims, release, coats, shell, open', /^plaster-mould\//, 'detail', 'photograph'),
      line('apart', 'Take the clay off its armature, the armature to its shelf', /^take-apart$/, 'mould'),
      line('reclaim', 'Break the clay up, wet it, wedge it for the next', /^reclaim$/, 'apart'),
    ],
  },
  {
    name: 'class of 24 wire figures, gauze and paper clay',
    lines: [
      setOut,
      armature,
      line('gauze', 'Foil as muscle, plaster gauze wound over it, a day to dry', /^bulk$/, 'armature'),
      line('first', 'First thin coat from the feet up', /^lay\/[^/]+\/1$/, 'gauze'),
      line('second', 'Second coat when the first is dry', /^lay\/[^/]+\/2$/, 'first'),
      line('smooth', 'Smooth the second while it is soft', /^smooth\//, 'second'),
      line('carve', 'Carve what is dry', /^refine\//, 'second', 'smooth'),
      maybe(line('mend', 'Mend cracks', /^mend\//, 'carve')),
      line('sand', 'Sand', /^sand\//, 'carve', 'mend'),
      line('detail', 'Fine marks', /^detail\//, 'sand', 'carve', 'mend'),
      line('photograph', 'Photograph them', /^photograph$/, 'detail'),
      line('fit', 'Set them up', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'mask in clay kept damp on a head form, until its mould',
    lines: [
      setOut,
      line('form', 'Set up the head form', /^armature$/, 'set out'),
      line('fill', 'Cover it so that the clay grips and the form keeps clean', /^bulk$/, 'form'),
      line('lay', 'Lay it from the edge up', /^lay\//, 'fill'),
      line('keep damp', 'Wet cloth and a bag over it whenever it is left', /^keep-damp$/),
      line('model', 'Model it', /^refine\//, 'lay'),
      line('smooth', 'Smooth it before the fine marks', /^smooth\//, 'model', 'lay'),
      line('detail', 'Fine marks', /^detail\//, 'model', 'smooth'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('mould', 'Release, plaster, open', /^plaster-mould\//, 'photograph', 'detail'),
      line('apart', 'Clean the form', /^take-apart$/, 'mould'),
      line('reclaim', 'Reclaim the clay', /^reclaim$/, 'apart'),
    ],
  },
  {
    name: 'giant in sections, steel, mesh and foam, paper clay',
    lines: [
      setOut,
      line('armature', 'Weld the frame in sections that bolt together', /^armature$/, 'set out'),
      line('fill', 'Mesh over it, foam behind it, trim the foam', /^bulk$/, 'armature'),
      line('lay', 'Clay on each section, from the foot up', /^lay\//, 'fill'),
      line('smooth', 'Smooth it while it is soft', /^smooth\//, 'lay'),
      line('join', 'Bolt the dry sections together, fill the joints', /^join-sections$/, 'lay', 'smooth'),
      line('carve', 'Carve it', /^refine\//, 'join'),
      maybe(line('mend', 'Mend cracks', /^mend\//, 'carve')),
      line('sand', 'Sand it', /^sand\//, 'carve', 'mend'),
      line('detail', 'Marks that are seen from below', /^detail\//, 'sand', 'carve', 'mend'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Take it there, set it up', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'worn shell in epoxy over foil that is pulled out',
    lines: [
      setOut,
      line('form', 'Make the form', /^armature$/, 'set out'),
      line('fill', 'Foil over it, pressed to shape', /^bulk$/, 'form'),
      line('lay', 'Batch by batch', /^lay\//, 'fill'),
      line('smooth', 'Smooth what was laid in the sitting', /^smooth\//, 'lay'),
      line('carve', 'File its rim and its face when it has set', /^refine\//, 'lay', 'smooth'),
      line('sand', 'Sand it', /^sand\//, 'carve'),
      line('detail', 'Fine marks', /^detail\//, 'sand', 'carve'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Straps on, try it on', /^fit$/, 'photograph'),
    ],
  },
  {
    name: 'bird on two feet, oil-based clay, wax over nothing: kept',
    lines: [
      setOut,
      armature,
      fill(),
      line('warm', 'Put the clay to warm the evening before, no sooner', /^warm$/, 'set out'),
      line('lay', 'Lay it warm, from the feet up', /^lay\//, 'warm', 'fill'),
      line('model', 'Model it', /^refine\//, 'lay'),
      line('smooth', 'Smooth it before the fine marks', /^smooth\//, 'model', 'lay'),
      line('detail', 'Feathers', /^detail\//, 'smooth', 'model'),
      line('photograph', 'Photograph it', /^photograph$/, 'detail'),
      line('fit', 'Set it up', /^fit$/, 'photograph'),
    ],
  },
];
