/**
 * How far the face gives under a tool: what makes one core hold detail and another dance away. A firm press of 10 N
 * through a pad 10 mm across, as a rigid punch on an elastic body (Boussinesq; Roark's *Formulas for Stress and Strain*),
 * the clay spreading it at 45 degrees onto what is under it. Left out: the armature's own sway, told as sag.
 */
const press = 10;
const pad = 0.005;
/** Neither clay nor bulk changes much in volume when pressed. */
const poisson = 0.4;

export function giveUnderTool(
  clay: { readonly youngs: number; readonly thickness: number },
  bulk: { readonly youngs: number } | null,
): number {
  const punch = (radius: number, youngs: number) => (press * (1 - poisson ** 2)) / (2 * radius * youngs);
  if (!bulk || bulk.youngs <= 0) return punch(pad, clay.youngs);
  const spread = pad + clay.thickness;
  // Down to the core the clay takes what lies between the pad and the wider patch below.
  return punch(pad, clay.youngs) - punch(spread, clay.youngs) + punch(spread, bulk.youngs);
}
