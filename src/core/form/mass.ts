export { massSchema, type Mass, type MassShape } from '../document';
